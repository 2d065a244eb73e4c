import { expect, test } from 'vitest';
import { lines } from '../testing/corpus.ts';
import { type ChartData, chartPlan, roundTicks } from './plan.ts';

test('round ticks', async () => {
  const spans: [number, number][] = [
    [0, 10],
    [0, 1],
    [3, 7],
    [0, 0],
    [-5, 5],
    [0, 99],
    [0, 1_250],
    [0.01, 0.09],
    [-120, -3],
    [1_000, 1_001],
    [0, 3e9],
    [17, 17],
  ];
  await expect(
    lines(spans.map(([least, most]) => `${least} to ${most}: ${roundTicks(least, most).join(' ')}`)),
  ).toMatchFileSnapshot('listed/ticks.txt');
});

const DATA: Record<string, Pick<ChartData, 'labels' | 'series'>> = {
  one: { labels: ['Oak', 'Ash', 'Elm'], series: [{ name: 'Price', values: [1_900, 1_400, 990] }] },
  two: {
    labels: ['2023', '2024', '2025', '2026'],
    series: [
      { name: 'Jars', values: [12, 40, 33, 57] },
      { name: 'Crocks', values: [3, 8, 0, 21] },
    ],
  },
  small: { labels: ['a', 'b'], series: [{ name: 'Share', values: [0.02, 0.31] }] },
  below: { labels: ['Jan', 'Feb', 'Mar'], series: [{ name: 'Degrees', values: [-4.5, 0, 6.2] }] },
  many: {
    labels: Array.from({ length: 24 }, (_, i) => `A label of some length ${i}`),
    series: [{ name: 'n', values: Array.from({ length: 24 }, (_, i) => (i * 37) % 50) }],
  },
  alone: { labels: ['Only'], series: [{ name: 'x', values: [5] }] },
};

test.each(['bar', 'line', 'dots'] as const)('where everything of a chart stands (%s)', async (form) => {
  const all = Object.entries(DATA).flatMap(([name, data]) => [
    `= ${name}`,
    JSON.stringify(chartPlan({ form, ...data } as ChartData, name === 'below' ? 'de' : 'en'), short),
  ]);
  await expect(lines(all.map((line) => line.replaceAll('},{', '},\n{')))).toMatchFileSnapshot(`listed/${form}.txt`);
});

const short = (_key: string, value: unknown) => (typeof value === 'number' ? Number(value.toFixed(3)) : value);
