import type { Slot } from '@grivo/contract';
import { describe, expect, test } from 'vitest';
import { hung } from './hung.ts';

const slot = (title: string) => ({ title }) as Slot;
const LONG = 'Best temperature for fermenting vegetables';
/** Twenty slots over four weeks, five a week. */
const four = Array.from({ length: 20 }, (_, i) => ({
  slot: slot(LONG),
  x: ((Math.floor(i / 5) * 7 + (i % 5) + 0.5) / 28) * 100,
}));

/** Where a title lies, in pixels, 6.8 a letter and 34 letters at most. */
const spanOf = (x: number, width: number): [number, number] => {
  const long = 34 * 6.8;
  const at = (x / 100) * width;
  return x > 80 ? [at - long, at] : [at, at + long];
};

describe('titles below the chart', () => {
  test.each([904, 1_160, 1_480])('in one row none lies over another in a chart of %i px', (width) => {
    const labels = hung(four, width);
    expect(labels.length).toBeGreaterThan(6);
    for (const one of labels)
      for (const other of labels) {
        if (one === other || one.row !== other.row) continue;
        const [a, b] = [one, other].map(({ slot }) => spanOf(four.find((it) => it.slot === slot)!.x, width));
        expect(a![1] <= b![0] || b![1] <= a![0]).toBe(true);
      }
  });

  test('the narrower the chart the fewer have room; those without are in the list alone', () => {
    expect(hung(four, 500).length).toBeLessThan(hung(four, 1_480).length);
    expect(Math.max(...hung(four, 500).map(({ row }) => row))).toBe(6);
  });

  test('short titles far apart hang in one row', () => {
    const apart = [5, 35, 65].map((x) => ({ slot: slot('Salt'), x }));
    expect(hung(apart, 1_160).map(({ row }) => row)).toEqual([0, 0, 0]);
  });
});
