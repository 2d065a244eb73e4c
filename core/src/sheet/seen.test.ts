import { expect, test } from 'vitest';
import { FirstMet } from './seen.ts';

test('a text is known again where it was met first, among many that are nearly alike', () => {
  const seen = new FirstMet();
  const texts = Array.from({ length: 60_000 }, (_, i) => `["CH-${i % 3 === 0 ? i : `${i}A`}"]`);
  expect(texts.filter((text, i) => seen.meet(text, i + 1) !== 0)).toEqual([]);
  for (let i = 0; i < texts.length; i += 997) expect(seen.meet(texts[i]!, 1_000_000 + i)).toBe(i + 1);
  expect(seen.meet('', 7)).toBe(0);
  expect(seen.meet('', 8)).toBe(7);
});

test('texts that differ in one letter, in order, or only in length are not taken for each other', () => {
  const seen = new FirstMet();
  const letters = 'abcdefghijklmnopqrstuvwxyzäöü0123456789 -_'.split('');
  const texts = letters.flatMap((one) =>
    letters.flatMap((two) => ['', ...letters].map((three) => `${one}${two}${three}`)),
  );
  expect(texts.filter((text, i) => seen.meet(text, i + 1) !== 0)).toEqual([]);
});
