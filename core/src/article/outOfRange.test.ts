import { expect, test } from 'vitest';
import type { ArticleMeasure } from './measure.ts';
import { LISTED_MEASURES, measureBits, outOfRange } from './outOfRange.ts';

const measure = (name: string, value: number, least: number | null, most: number | null): ArticleMeasure => ({
  name,
  value,
  least,
  most,
  unit: 'words',
  says: '',
  place: null,
});

test('what lies under or over its range is told, at its ends it is within', () => {
  expect(
    outOfRange([
      measure('Length', 901, null, 900),
      measure('Reading grade', 3.9, 4, 10),
      measure('Sentences', 22, 9, 22),
      measure('Title', 20, 20, 70),
      measure('Evidence', 0, null, null),
      measure('House style', 9, null, 0),
    ]),
  ).toEqual([
    { name: 'Length', value: 901, unit: 'words', side: 'over' },
    { name: 'Reading grade', value: 3.9, unit: 'words', side: 'under' },
  ]);
});

test('each measure is a bit of its own', () => {
  const bits = LISTED_MEASURES.map((name) => measureBits([name]));
  expect(new Set(bits).size).toBe(LISTED_MEASURES.length);
  expect(bits.every((bit) => bit > 0 && (bit & (bit - 1)) === 0)).toBe(true);
  expect(measureBits(LISTED_MEASURES)).toBe(bits.reduce((sum, bit) => sum + bit, 0));
  expect(measureBits([])).toBe(0);
});
