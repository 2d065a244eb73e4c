import fc from 'fast-check';
import { expect, it } from 'vitest';
import { compareLines } from './compare.ts';

const short = (before: string, after: string) =>
  compareLines([...before], [...after])
    .map(({ line, in: where }) => `${{ before: '-', after: '+', both: '' }[where]}${line}`)
    .join(' ');

it('says what went and what came, in its place', () => {
  expect(short('abc', 'axc')).toBe('a -b +x c');
  expect(short('abc', 'bca')).toBe('-a b c +a');
  expect(short('', 'ab')).toBe('+a +b');
  expect(short('ab', '')).toBe('-a -b');
  expect(short('ab', 'ab')).toBe('a b');
});

it('gives both texts back, whatever they are, each line with its place', () => {
  const text = fc.array(fc.constantFrom('a', 'b', 'c', 'd'), { maxLength: 20 });
  fc.assert(
    fc.property(text, text, (before, after) => {
      const lines = compareLines(before, after);
      expect(lines.filter((one) => one.in !== 'after').map(({ line }) => line)).toEqual(before);
      expect(lines.filter((one) => one.in !== 'before').map(({ line }) => line)).toEqual(after);
      for (const { line, in: where, at } of lines) expect((where === 'before' ? before : after)[at]).toBe(line);
    }),
  );
});

it('keeps as much as can be kept', () => {
  const kept = (before: string, after: string) =>
    compareLines([...before], [...after]).filter((one) => one.in === 'both');
  expect(kept('abcabba', 'cbabac')).toHaveLength(4);
});
