import type { Item } from '@grivo/contract';
import { expect, test } from 'vitest';
import { partsOf, standsAs } from './show.ts';

const item = (id: string, more: Partial<Item> = {}): Item => ({
  id,
  subject: id,
  leftOut: null,
  leftDetail: '',
  gone: false,
  publishedDesk: null,
  about: '',
  answeredBy: null,
  volume: null,
  difficulty: null,
  results: [],
  taken: [],
  ...more,
});
const taken = [{ pipeline: 'p1', brief: 'b', standing: 'out' }];

test('an item taken by another pipeline is new to this one; one taken by this counts as taken, whatever is said of it', () => {
  expect(standsAs(item('a', { taken }), 'p2')).toBe('new');
  expect(standsAs(item('a', { taken, leftOut: 'filtered' }), 'p1')).toBe('taken');
  expect(standsAs(item('a', { leftOut: 'near repeat' }), 'p1')).toBe('left out');
});

test('the newest come first, one without a day beside the one it came in after', () => {
  const parts = partsOf(
    [item('old', { publishedDesk: 10 }), item('undated'), item('new', { publishedDesk: 30 })],
    undefined,
  );
  expect(parts.new.map(({ id }) => id)).toEqual(['new', 'undated', 'old']);
});

test('without days they stand as they are listed, and each in one part', () => {
  const parts = partsOf([item('a'), item('b', { leftOut: 'by hand' }), item('c', { taken })], 'p1');
  expect(parts.all.map(({ id }) => id)).toEqual(['a', 'b', 'c']);
  expect([parts.new, parts['left out'], parts.taken].map((part) => part.length)).toEqual([1, 1, 1]);
});
