import { describe, expect, it, test } from 'vitest';
import { type Moment, momentFits, momentsOf } from './moments.ts';
import { digitValues, germanNumber, numbersOf } from './numbers.ts';
import { factsOf } from './quantities.ts';
import { quantityFits } from './quantity.ts';
import { tokensOf } from './token.ts';

const facts = (text: string, language = 'en') => factsOf(tokensOf(text, language), language);
const figures = (text: string, language = 'en') =>
  facts(text, language).quantities.map(({ means: [first], says }) => [
    first!.dimension,
    Math.round(first!.value * 1_000) / 1_000,
    says,
  ]);
const fits = (said: string, held: string, language = 'en') => {
  const [mine] = facts(said, language).quantities;
  return facts(held, language).quantities.some((its) => quantityFits(mine!, its));
};

describe('numbers', () => {
  it.each([
    ['1,220', 'en', [1_220]],
    ['1.220', 'en', [1.22, 1_220]],
    ['1.220', 'de', [1_220]],
    ['1,5', 'de', [1.5]],
    ['1.234.567,8', 'de', [1_234_567.8]],
    ['1,234,567.8', 'en', [1_234_567.8]],
    ['48\u00a0000', 'en', [48_000]],
    ['7', 'en', [7]],
    ['8:30', 'en', []],
  ])('%s (%s) is %j', (text, language, values) => expect(digitValues(text, language)).toEqual(values));

  it.each([
    ['siebenundzwanzig', 27],
    ['zweihundertfünfundzwanzig', 225],
    ['hundert', 100],
    ['zweitausendeinhundert', 2_100],
    ['anderthalb', 1.5],
    ['dreieinhalb', 3.5],
    ['hundertste', null],
    ['undzwanzig', null],
    ['einerlei', null],
  ])('%s is %s', (word, value) => expect(germanNumber(word)).toBe(value));

  const read = (text: string, language = 'en') =>
    numbersOf(tokensOf(text, language), language).map(({ values }) => values[0]);

  it.each([
    ['two hundred and forty singers and a dozen boys', [240, 12]],
    ['twenty-five thousand', [25_000]],
    ['1.4 million and 3 dozen', [1_400_000, 36]],
    ['two and a half hours, 2 and a half days', [2.5, 2.5]],
    ['one loaf, a jar', []],
    ['½ a cup, 1½ cups, 5/8 of it', [0.5, 1.5, 0.625]],
    // What stands apart, or over more than a hundred, is no fraction.
    ['rooms 5 / 8 and form 3/200', [5, 8, 3, 200]],
    ['a thousand', [1_000]],
    ['ten twenty', [10, 20]],
  ])('‘%s’ has %j', (text, values) => expect(read(text)).toEqual(values));

  it('in German words and figures', () => {
    expect(read('Zwei Millionen Bücher, achtundvierzig Regale, ein Haus', 'de')).toEqual([2_000_000, 48]);
  });
});

describe('figures with their units', () => {
  it.each([
    ['860 kilos', [['mass', 860_000, 'exactly']]],
    ['about 5 km', [['length', 5_000, 'about']]],
    ['more than 20 %', [['share', 0.2, 'over']]],
    ['fewer than 12 people', [['count', 12, 'under']]],
    [
      '€12 or 50 cents',
      [
        ['money EUR', 12, 'exactly'],
        ['money EUR', 0.5, 'exactly'],
      ],
    ],
    ['£3.2m', [['money GBP', 3_200_000, 'exactly']]],
    [
      'between 18 and 22 °C',
      [
        ['heat', 18, 'exactly'],
        ['heat', 22, 'exactly'],
      ],
    ],
    [
      '7 to 10 days',
      [
        ['time', 604_800, 'exactly'],
        ['time', 864_000, 'exactly'],
      ],
    ],
    ['392 °F', [['heat', 200, 'exactly']]],
    ['a 55-litre tank', [['volume', 55_000, 'exactly']]],
    ['two thirds of it', [['share', 0.667, 'exactly']]],
    ['a quarter of a kilo', [['mass', 250, 'exactly']]],
    ['half an hour', [['time', 1_800, 'exactly']]],
    ['one in four', [['share', 0.25, 'exactly']]],
    ['one jar in twenty', [['share', 0.05, 'exactly']]],
    ['twice as much', [['times', 2, 'exactly']]],
    ['half as much again', [['times', 1.5, 'exactly']]],
    ['131 km/h', [['speed', 131, 'exactly']]],
    ['2:31 hours', [['time', 9_060, 'exactly']]],
  ])('‘%s’', (text, expected) => expect(figures(text)).toEqual(expected));

  it.each([
    ['anderthalb Stunden', [['time', 5_400, 'exactly']]],
    ['eine Viertelstunde', [['time', 900, 'exactly']]],
    ['gut 700 Kilometer', [['length', 700_000, 'about']]],
    ['höchstens 8.000 Euro', [['money EUR', 8_000, 'under']]],
    ['jeder zehnte Fahrgast', [['share', 0.1, 'exactly']]],
    ['doppelt so viel', [['times', 2, 'exactly']]],
    ['ein Drittel', [['share', 0.333, 'exactly']]],
    ['ein halber Liter', [['volume', 500, 'exactly']]],
    ['siebenmal in der Minute', [['times', 7, 'exactly']]],
  ])('‘%s’', (text, expected) => expect(figures(text, 'de')).toEqual(expected));

  it('where a unit is left out it is that of the figure before', () => {
    const [, second] = facts('A male needs 20 kilometres, a female 7.').quantities;
    expect(second!.means.map(({ dimension, value }) => [dimension, value])).toContainEqual(['length', 7_000]);
  });

  it.each([
    ['0.86 tonnes', '860 kilos', true],
    ['860 pounds', '860 kilos', false],
    ['2,914 metres', '2,941 metres', false],
    ['2.9 kilometres', '2,914 metres', true],
    ['about 130', '131', true],
    ['about 130', '180', false],
    ['more than 300', '312', true],
    ['more than 320', '312', false],
    ['nearly two thirds', '64 %', true],
    ['50 per cent', 'half', true],
    ['half as heavy', 'twice as heavy', true],
    ['doubled', '50 per cent', false],
    ['doubled', 'twice as many', true],
    ['60 dollars', '60 euros', false],
    ['three months', '90 days', true],
    ['three months', '97 days', false],
    ['about three months', '97 days', false],
    ['12 weeks', 'three months', true],
    ['six weeks', '46 days', false],
    ['nine times', '9 turns', true],
    ['12', '12 %', false],
  ])('‘%s’ said of ‘%s’: %s', (said, held, expected) => expect(fits(said, held)).toBe(expected));
});

describe('dates and times', () => {
  const moments = (text: string, language = 'en') =>
    momentsOf(tokensOf(text, language), language).map(({ from: _, to: __, ...rest }) => rest);

  it.each([
    ['on 3 May 1987', [{ day: 3, months: [5], year: 1987 }]],
    ['on May 3rd, 1987', [{ day: 3, months: [5], year: 1987 }]],
    ['the second of January 2017', [{ day: 2, months: [1], year: 2017 }]],
    ['1987-05-03', [{ day: 3, months: [5], year: 1987 }]],
    ['in the seventeenth century', [{ years: [1_600, 1_700] }]],
    ['in the 1920s', [{ years: [1_920, 1_929] }]],
    ['at half past seven', [{ clock: 450 }]],
    ['at 7.30 pm', [{ clock: 1_170, half: true }]],
    // What stands right behind a time is read by itself.
    ['at half past seven Monday', [{ clock: 450 }, { weekday: 1 }]],
    ['at quarter to nine Monday 3 May', [{ clock: 525 }, { weekday: 1 }, { day: 3, months: [5] }]],
    ['in the early sixties', [{ years: [1_960, 1_969] }]],
    ['temperatures in the high sixties', []],
    [
      'from 3 to 17 June',
      [
        { day: 3, months: [6] },
        { day: 17, months: [6] },
      ],
    ],
    ['from 17 to 3 June', [{ day: 3, months: [6] }]],
    ['every october, and they may march', [{ months: [10] }]],
    ['nine in the morning', [{ clock: 540, half: true }]],
    ['on Wednesdays', [{ weekday: 3 }]],
    ['since the end of 2019', [{ months: [10, 11, 12], year: 2019 }]],
    ['they may come, and march on', []],
  ])('‘%s’', (text, expected) => expect(moments(text)).toEqual(expected));

  it.each([
    ['am 3. Mai 1987', [{ day: 3, months: [5], year: 1987 }]],
    ['am 12.07.2025', [{ day: 12, months: [7], year: 2025 }]],
    ['um halb acht', [{ clock: 450 }]],
    ['um 19.30 Uhr', [{ clock: 1_170, half: true }]],
    ['Mitte Juni', [{ months: [6], days: [10, 20] }]],
    ['samstags', [{ weekday: 6 }]],
    [
      'vom 3. bis zum 17. Juni',
      [
        { day: 3, months: [6] },
        { day: 17, months: [6] },
      ],
    ],
    ['in den siebziger Jahren', [{ years: [1_970, 1_979] }]],
    ['im 17. Jahrhundert', [{ years: [1_600, 1_700] }]],
  ])('‘%s’', (text, expected) => expect(moments(text, 'de')).toEqual(expected));

  const whole: Moment = { day: 12, months: [11], year: 2023, from: 0, to: 1 };
  it.each([
    [{ weekday: 7 }, true],
    [{ weekday: 6 }, false],
    [{ months: [11] }, true],
    [{ months: [9, 10, 11] }, true],
    [{ year: 2022 }, false],
    [{ day: 12, months: [11] }, true],
    [{ day: 13, months: [11] }, false],
    [{ months: [11], days: [10, 20] as [number, number] }, true],
    [{ months: [11], days: [20, 31] as [number, number] }, false],
    [{ years: [2_000, 2_100] as [number, number] }, true],
    [{ clock: 600 }, false],
  ])('%j said of 12 November 2023: %s', (said, expected) =>
    expect(momentFits({ ...said, from: 0, to: 1 }, whole)).toBe(expected),
  );

  test('half of the day counts only where both say it', () => {
    const clock = (minutes: number, half?: true): Moment => ({
      clock: minutes,
      ...(half ? { half } : {}),
      from: 0,
      to: 1,
    });
    expect(momentFits(clock(450), clock(1_170, true))).toBe(true);
    expect(momentFits(clock(450, true), clock(1_170, true))).toBe(false);
  });
});
