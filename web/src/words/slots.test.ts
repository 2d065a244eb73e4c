import { expect, test } from 'vitest';
import { id, NOW, slot } from '../testing/samples.ts';
import { slotKey } from './slots.ts';

test('two articles that go out in the same moment are told apart, an empty slot too', () => {
  const keys = [
    slot(1, { article: id('a') }),
    slot(1, { article: id('b') }),
    slot(1, { brief: id('c') }),
    slot(1),
    slot(2),
  ].map(slotKey);
  expect(new Set(keys).size).toBe(5);
  expect(keys[3]).toBe(`${NOW + 3_600_000} `);
});

test('the same slot is the same, whatever else is said of it', () => {
  expect(slotKey(slot(1, { article: id('a'), title: 'Rosin', standing: 'out' }))).toBe(
    slotKey(slot(1, { article: id('a') })),
  );
});
