import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { tokensOf } from '../honesty/token.ts';
import { clausesOf } from './clauses.ts';
import { eventsIn, numberIn } from './events.ts';
import { seriesIn, seriesInRows } from './series.ts';

const points = (text: string, language = 'en') =>
  seriesIn(text, language).map(({ labels, values, unit }) => ({
    unit,
    points: labels.map((label, i) => [label, values[i]]),
  }));

describe('a figure', () => {
  test.each([
    ['1,400', 1_400],
    ['1.400', 1_400],
    ['12,5', 12.5],
    ['12.5', 12.5],
    ['0.635', 0.635],
    ['0,635', 0.635],
    ['1 400', 1_400],
    ['2021', 2_021],
    ["1'250'000", 1_250_000],
  ])('%s is %f', (text, value) => expect(numberIn(text)).toBe(value));
});

describe('a clause', () => {
  const clauses = (text: string, language = 'en') =>
    clausesOf(tokensOf(text, language), language).map((clause) => clause.map(({ text }) => text).join(' '));

  test('ends at commas, stops and joining words, and after a colon that follows no label', () => {
    expect(clauses('In May 4 kg, in June 5.5 kg and in July 9 kg.')).toEqual([
      'In May 4 kg',
      'in June 5.5 kg',
      'in July 9 kg',
    ]);
    expect(clauses('Week 1: 3 eggs; week 2: 5 eggs')).toEqual(['Week 1 : 3 eggs', 'week 2 : 5 eggs']);
    expect(clauses('The number of mills fell: 64 in 2008')).toEqual(['The number of mills fell', '64 in 2008']);
    expect(clauses('Im Mai 4 kg und im Juni 5,5 kg', 'de')).toEqual(['Im Mai 4 kg', 'im Juni 5,5 kg']);
  });
});

describe('what is measured in a clause', () => {
  const events = (text: string, language = 'en') => {
    const [clause] = clausesOf(tokensOf(text, language), language);
    return eventsIn(clause!, language)?.map((event) =>
      event.kind === 'label' ? `${event.sort}: ${event.text}` : `${event.value} ${event.unit}`.trim(),
    );
  };

  test.each([
    ['in 2021 the yard sold 140 jars', ['year: 2021', '140 jars']],
    ['2021 jars were sold', ['year: 2021']],
    ['at 2021 kg', ['2021 kg']],
    ['on 3 May 12 guests', ['month: 3 May', '12 guests']],
    ['in March it may rain 12 mm', ['month: March', '12 mm']],
    ['they march 12 km', ['12 km']],
    ['€12 in week 3', ['12 €', 'numbered week: week 3']],
    ['page 14 and no more', []],
    ['3 to 5 days', undefined],
    ['3–5 days', undefined],
  ])('%s', (text, found) => expect(events(text)).toEqual(found));

  test('in German what is counted is a noun, and a year may be called one', () => {
    expect(events('im Jahr 2020 zählte er 41 Völker', 'de')).toEqual(['year: 2020', '41 Völker']);
    expect(events('2020 waren es 33', 'de')).toEqual(['year: 2020', '33']);
  });
});

describe('a series', () => {
  test('has one unit; another begins anew', () => {
    expect(points('In 2019 140 jars, in 2020 180 jars, in 2021 12 kg, in 2022 14 kg and in 2023 19 kg.')).toEqual([
      {
        unit: 'kg',
        points: [
          ['2021', 12],
          ['2022', 14],
          ['2023', 19],
        ],
      },
    ]);
  });

  test('has every label once', () => {
    expect(points('In May 4 kg, in May 5 kg and in June 6 kg.')).toEqual([]);
  });

  test('may stand among others of its passage', () => {
    const found = points(
      'In 2019 9 mills, in 2020 7 mills and in 2021 4 mills. Rye needs 4 hours, spelt 3 hours and wheat 2 hours.',
    );
    expect(found[0]).toEqual({
      unit: 'mills',
      points: [
        ['2019', 9],
        ['2020', 7],
        ['2021', 4],
      ],
    });
  });

  test('of things by name ends where another sort begins, whether or not a sentence does', () => {
    const two = [
      {
        unit: 'hours',
        points: [
          ['beech', 4],
          ['birch', 3],
          ['spruce', 2],
        ],
      },
      {
        unit: 'kg',
        points: [
          ['oak', 7],
          ['ash', 6],
          ['fir', 4],
        ],
      },
    ];
    const lower = (text: string) =>
      points(text).map(({ unit, points: all }) => ({
        unit,
        points: all.map(([label, value]) => [String(label).toLowerCase(), value]),
      }));
    expect(lower('Beech 4 hours, birch 3 hours, spruce 2 hours, oak 7 kg, ash 6 kg, fir 4 kg.')).toEqual(two);
    expect(lower('Beech 4 hours, birch 3 hours, spruce 2 hours. Oak 7 kg, ash 6 kg, fir 4 kg.')).toEqual(two);
  });

  test('of parts has the sum that was said, or is none', () => {
    const said = 'Of 50 seeds, 31 came up in light soil, 12 in loam and 7 in clay.';
    expect(points(said)[0]!.points.map(([, value]) => value)).toEqual([31, 12, 7]);
    expect(points(said.replace('Of 50', 'Of 60'))).toEqual([]);
  });

  test('of two figures is none', () => {
    expect(points('In 2019 140 jars and in 2020 180 jars.')).toEqual([]);
  });

  test('never has a label without a figure, and keeps what was written, whatever the text', () => {
    const words = fc.constantFrom(
      ...'in 2019 2020 2021 May June 12 4.5 kg jars % and , . : of the rye oak at 18 °C week 1 2 – to | € three'.split(
        ' ',
      ),
    );
    fc.assert(
      fc.property(fc.array(words, { maxLength: 60 }), fc.constantFrom('en', 'de', 'sv'), (all, language) => {
        const text = all.join(' ');
        for (const { labels, values } of seriesIn(text, language)) {
          expect(values).toHaveLength(labels.length);
          expect(labels.length).toBeGreaterThanOrEqual(3);
          expect(new Set(labels.map((label) => label.toLowerCase())).size).toBe(labels.length);
          for (const value of values) expect(text).toContain(String(value));
        }
      }),
      { numRuns: 400 },
    );
  });

  test('is looked for in a text of any length in no more time than that takes', () => {
    const took = (many: number) => {
      const text = 'In 2019 12 kg, '.repeat(many);
      const from = performance.now();
      seriesIn(text, 'en');
      return performance.now() - from;
    };
    took(100);
    // What is longer than a passage is looked at up to there.
    expect(took(100_000)).toBeLessThan(5_000);
  });
});

describe('rows of a table', () => {
  const rows = (...lines: string[]) =>
    seriesInRows(lines).map(({ labels, values, unit, what }) => [labels.join(' '), values.join(' '), unit, what]);

  test('give a series for each column of figures, named by its head', () => {
    expect(rows('Wood | Weight | Hardness', 'Oak | 720 kg | 34', 'Ash | 690 kg | 38', 'Fir | 450 kg | 16')).toEqual([
      ['Oak Ash Fir', '720 690 450', 'kg', 'Weight'],
      ['Oak Ash Fir', '34 38 16', '', 'Hardness'],
    ]);
  });

  test.each([
    ['rows of other widths', ['A | 1', 'B | 2 | 3', 'C | 4']],
    ['a label twice', ['A | 1', 'A | 2', 'C | 4']],
    ['units that differ', ['A | 1 kg', 'B | 2 l', 'C | 4 kg']],
    ['words among the figures', ['A | 1', 'B | many', 'C | 4']],
    ['two rows', ['A | 1', 'B | 2']],
    ['one column', ['A', 'B', 'C']],
    ['nothing', []],
  ])('are none with %s', (_, lines) => expect(rows(...lines)).toEqual([]));

  test('take signs before and after a figure', () => {
    expect(rows('A | about 3 kg', 'B | -4 kg', 'C | 1,200 kg')).toEqual([['A B C', '3 -4 1200', 'kg', undefined]]);
    expect(rows('A | €3', 'B | €4', 'C | €5')).toEqual([['A B C', '3 4 5', '', undefined]]);
  });
});
