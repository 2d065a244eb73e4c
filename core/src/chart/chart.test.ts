import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import type { Chart } from '../article/block.ts';
import { articleHtml } from '../article/html.ts';
import type { Face } from '../drawing/type.ts';
import type { Series } from '../series/series.ts';
import { drawChart } from './draw.ts';
import { chartInWords, chartOf, seriesCaption, tableOf } from './make.ts';
import { chartPlan, roundTicks } from './plan.ts';

/** Letters half as wide as they are high, without outlines: what is drawn of them is told by their place. */
const face: Face = {
  reach: () => ({ above: 800, below: 200 }),
  set: (text) => ({ advance: text.length * 500, ink: { left: 0, right: 0, top: 0, bottom: 0 }, outline: `L${text}` }),
};
const data = (form: Chart['form'], labels: string[], ...series: number[][]) => ({
  form,
  labels,
  series: series.map((values, i) => ({ name: `s${i}`, values })),
});

describe('ticks', () => {
  test.each([
    [0, 231, [0, 50, 100, 150, 200, 250]],
    [0, 9, [0, 2, 4, 6, 8, 10]],
    [0, 0.7, [0, 0.2, 0.4, 0.6, 0.8]],
    [-12, 30, [-20, -10, 0, 10, 20, 30]],
    [0, 0, [0, 0.2]],
  ])('from %f to %f', (low, high, ticks) => expect(roundTicks(low, high)).toEqual(ticks));

  test('are round, evenly apart, hold every figure and nought, and are few', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -1e6, max: 1e6, noNaN: true }),
        fc.double({ min: 0.001, max: 1e6, noNaN: true }),
        (low, more) => {
          const ticks = roundTicks(low, low + more);
          const [from, to] = [Math.min(0, low), Math.max(0, low + more)];
          // What is that much smaller than the whole is no part of a pixel.
          const slack = 1e-7 * (to - from) + 1e-9;
          expect(ticks[0]).toBeLessThanOrEqual(from + slack);
          expect(ticks.at(-1)).toBeGreaterThanOrEqual(to - slack);
          expect(ticks).toContain(0);
          expect(ticks.length).toBeLessThanOrEqual(9);
          const step = ticks[1]! - ticks[0]!;
          for (let i = 1; i < ticks.length; i++) expect(ticks[i]! - ticks[i - 1]!).toBeCloseTo(step, 5);
        },
      ),
    );
  });
});

describe('a plan', () => {
  test('puts every bar as far as its figure says, beside its label', () => {
    const plan = chartPlan(data('bar', ['Ash', 'Celadon', 'Tenmoku'], [9, 4, 2]), 'en');
    const [nought, ten] = [plan.ticks[0]!.at, plan.ticks.at(-1)!.at];
    const { bars } = plan.series[0]!;
    for (const [i, bar] of bars.entries()) {
      expect(bar.width / (ten - nought)).toBeCloseTo([9, 4, 2][i]! / 10, 6);
      expect(plan.labels[i]!.y).toBeGreaterThan(bar.y);
      expect(plan.labels[i]!.y).toBeLessThan(bar.y + bar.height);
    }
    expect(plan.figures.map(({ text }) => text)).toEqual(['9', '4', '2']);
  });

  test('puts points by what their labels measure: years that lie apart stand apart', () => {
    const { series } = chartPlan(data('line', ['2001', '2005', '2013'], [80, 95, 112]), 'en');
    const [one, two, three] = series[0]!.points;
    expect((two!.x - one!.x) / (three!.x - one!.x)).toBeCloseTo(4 / 12, 6);
    expect(one!.y).toBeGreaterThan(three!.y);
  });

  test('joins points in the order of the width, whatever the order they were said in', () => {
    const { series } = chartPlan(data('line', ['18 °C', '10 °C', '2 °C'], [2.1, 1.4, 0.9]), 'en');
    expect(series[0]!.points.map(({ value }) => value)).toEqual([0.9, 1.4, 2.1]);
  });

  test('names its series where there are several, and says figures as the language does', () => {
    const plan = chartPlan(data('bar', ['Ton', 'Sand'], [1.5, 2], [1, 3]), 'de');
    expect(plan.key.map(({ text }) => text)).toEqual(['s0', 's1']);
    expect(plan.figures.map(({ text }) => text)).toEqual(['1,5', '2', '1', '3']);
  });

  test('stays within its drawing, however many and however long', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('bar' as const, 'line' as const, 'dots' as const),
        fc.uniqueArray(fc.string({ minLength: 1, maxLength: 60 }), { minLength: 1, maxLength: 30 }),
        fc.array(fc.double({ min: -1e5, max: 1e5, noNaN: true }), { minLength: 30, maxLength: 30 }),
        (form, labels, values) => {
          const plan = chartPlan(data(form, labels, values.slice(0, labels.length)), 'en');
          for (const { bars, points } of plan.series) {
            for (const bar of bars) {
              expect(bar.x).toBeGreaterThanOrEqual(0);
              expect(bar.x + bar.width).toBeLessThanOrEqual(plan.width);
              expect(bar.y + bar.height).toBeLessThanOrEqual(plan.height);
            }
            for (const { x, y } of points) {
              expect(x).toBeGreaterThanOrEqual(0);
              expect(x).toBeLessThanOrEqual(plan.width);
              expect(y).toBeLessThanOrEqual(plan.height);
            }
          }
        },
      ),
    );
  });
});

test('a drawing has the bars, points, ticks and words of its plan, and nothing else', () => {
  for (const form of ['bar', 'line', 'dots'] as const) {
    const plan = chartPlan(data(form, ['2019', '2020', '2021'], [140, 180, 231], [12, 9, 14]), 'en');
    const svg = drawChart(plan, face);
    const figures = (pattern: RegExp) => [...svg.matchAll(pattern)].map((found) => found.slice(1).map(Number));
    const near = (drawn: number[][], planned: number[][]) => {
      expect(drawn).toHaveLength(planned.length);
      for (const [i, one] of drawn.entries())
        for (const [n, value] of one.entries()) expect(value).toBeCloseTo(planned[i]![n]!, 1);
    };
    const bars = plan.series.flatMap(({ bars }) => bars.map(({ x, y, width, height }) => [x, y, width, height]));
    near(
      figures(/<rect x="([\d.-]+)" y="([\d.-]+)" width="([\d.]+)" height="([\d.]+)" fill="#/g).slice(
        1,
        1 + bars.length,
      ),
      bars,
    );
    near(
      figures(/<circle cx="([\d.]+)" cy="([\d.]+)"/g),
      plan.series.flatMap(({ points }) => points.map(({ x, y }) => [x, y])),
    );
    const words = [...svg.matchAll(/d="L([^"]*)"/g)].map(([, text]) => text);
    expect(words.sort()).toEqual(
      [
        ...plan.ticks.map(({ says }) => says),
        ...[...plan.labels, ...plan.figures, ...plan.key].map(({ text }) => text),
      ].sort(),
    );
    expect(svg.includes('stroke-width="2"')).toBe(form === 'line');
  }
});

describe('a series', () => {
  const years: Series = { labels: ['2019', '2020', '2021'], values: [140, 180, 231.5], unit: 'jars', ordered: true };
  const sorts: Series = { labels: ['Ash', 'Celadon', 'Tenmoku'], values: [9, 4, 2], unit: '%', ordered: false };

  test('becomes a chart with all its figures in words, and a table', () => {
    expect(chartOf(years, 'c1', 'en')).toMatchObject({
      form: 'line',
      caption: [{ text: 'Jars: 2019 to 2021' }],
      alternative: 'Chart: jars: 2019 140, 2020 180, 2021 231.5',
    });
    expect(chartOf(sorts, 'c1', 'de').alternative).toBe('Diagramm: %: Ash 9, Celadon 4, Tenmoku 2');
    expect(seriesCaption(sorts, 'en')).toBe('In %: Ash, Celadon and Tenmoku');
    expect(seriesCaption({ ...sorts, what: 'Water' }, 'de')).toBe('Water, %: Ash, Celadon und Tenmoku');
    expect(tableOf(years, 't1', 'de').rows[2]).toEqual([[{ text: '2021' }], [{ text: '231,5' }]]);
    expect(chartInWords({ labels: ['a'], series: [{ name: '', values: [1] }] }, 'en')).toBe('a 1');
  });

  test('as a chart has every figure in the table below its picture; without a picture the table stands alone', () => {
    const body = [chartOf(years, 'c1', 'en')];
    const resolve = { file: (file: string) => `/f/${file}`, article: () => null };
    const alone = articleHtml({ body }, resolve);
    const shown = articleHtml({ body }, { ...resolve, chart: () => ({ file: 'p', width: 752, height: 400 }) });
    for (const html of [alone, shown])
      for (const text of ['2019', '2020', '2021', '140', '180', '231.5']) expect(html).toContain(`>${text}</t`);
    expect(alone).not.toContain('<img');
    expect(shown).toContain(
      '<img src="/f/p" alt="Chart: jars: 2019 140, 2020 180, 2021 231.5" width="752" height="400">',
    );
    // Not yet sent to the blog: no picture that leads nowhere.
    expect(
      articleHtml({ body }, { ...resolve, file: () => '', chart: () => ({ file: 'p', width: 1, height: 1 }) }),
    ).toBe(alone);
  });
});
