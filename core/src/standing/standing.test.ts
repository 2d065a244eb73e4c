import { expect, test } from 'vitest';
import { briefMay, publicationMay, standingOf, stepMay } from './standing.ts';

test('what has ended stays ended, and only a running step can end', () => {
  for (const to of ['ready', 'running', 'waiting', 'held', 'stopped'] as const) {
    expect(stepMay('done', to)).toBe(false);
    expect(stepMay('cancelled', to)).toBe(false);
  }
  expect(stepMay('ready', 'done')).toBe(false);
  expect(stepMay('running', 'done')).toBe(true);
  expect(stepMay('held', 'done')).toBe(true);
});

test('a published article is never created again while it is live', () => {
  expect(publicationMay('live', 'creating')).toBe(false);
  expect(publicationMay('draft', 'creating')).toBe(false);
  expect(publicationMay('draft', 'live')).toBe(true);
});

test('the standing of a brief is that of its most pressing open run', () => {
  const run = (state: Parameters<typeof stepMay>[0], forSlot = false) => ({ state, forSlot });
  expect(standingOf([run('waiting', true)], null)).toBe('ready');
  expect(standingOf([run('waiting', false)], null)).toBe('in work');
  expect(standingOf([run('stopped'), run('running')], null)).toBe('in work');
  expect(standingOf([run('stopped'), run('held')], null)).toBe('stopped');
  expect(standingOf([run('held'), run('waiting', true)], null)).toBe('held');
  expect(standingOf([], 'out')).toBe('out');
  expect(briefMay('set aside', 'in work')).toBe(true);
  expect(briefMay('waiting', 'out')).toBe(false);
});
