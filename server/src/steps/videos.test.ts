import { stepKinds } from '@grivo/core';
import { expect, test } from 'vitest';
import { isWanted } from './videos.ts';

const NOW = Date.UTC(2026, 5, 1);
const page = { channel: 'Hive Talk', seconds: 300, published: '2024-03-01T10:00:00Z', language: 'en-GB' };
const wanted = (step: object, change: Partial<typeof page> | { published: null } = {}, language = 'en') =>
  isWanted({ ...page, ...change }, { ...stepKinds.videos.fresh('v1'), ...step }, language, NOW);

test('a video is wanted in the language of the article, or where its page says none', () => {
  expect(wanted({})).toBe(true);
  expect(wanted({}, {}, 'de')).toBe(false);
  expect(isWanted({ ...page, language: null }, stepKinds.videos.fresh('v1'), 'de', NOW)).toBe(true);
});

test('by length and age, and not where its page does not say them', () => {
  expect([wanted({ minutes: 5 }), wanted({ minutes: 4 })]).toEqual([true, false]);
  expect(wanted({ minutes: 5 }, { seconds: 0 })).toBe(false);
  expect([wanted({ years: 3 }), wanted({ years: 2 })]).toEqual([true, false]);
  expect(wanted({ years: 3 }, { published: null })).toBe(false);
  expect(wanted({ years: 3 }, { published: 'in spring' })).toBe(false);
});

test('by its channel, in any case', () => {
  expect([wanted({ only: ['hive talk'] }), wanted({ only: ['Bee Time'] })]).toEqual([true, false]);
  expect([wanted({ never: ['Bee Time'] }), wanted({ never: ['Bee Time', 'HIVE TALK'] })]).toEqual([true, false]);
});
