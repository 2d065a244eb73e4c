import { expect, test } from 'vitest';
import { z } from 'zod';
import { checkedInSlices, isSame } from './slices.ts';

test('a long list is checked whole, with breaks for others', async () => {
  let breaks = 0;
  const others = setInterval(() => breaks++, 0);
  const values = Array.from({ length: 5_000 }, (_, n) => ({ n }));
  expect(await checkedInSlices(z.object({ n: z.int() }), values)).toEqual(values);
  clearInterval(others);
  expect(breaks).toBeGreaterThan(0);
  await expect(checkedInSlices(z.int(), [1, 2, 'three'])).rejects.toThrow();
});

test.each([
  [{ a: [1, { b: null }] }, { a: [1, { b: null }] }, true],
  [{ a: 1 }, { a: 1, b: 2 }, false],
  [{ a: 1, b: undefined }, { a: 1 }, false],
  [[1, 2], [1, 2, 3], false],
  [[1], { 0: 1 }, false],
  [null, {}, false],
])('%j and %j are the same: %s', (a, b, same) => {
  expect(isSame(a, b)).toBe(same);
  expect(isSame(b, a)).toBe(same);
});
