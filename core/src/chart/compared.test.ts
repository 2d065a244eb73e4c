import { expect, test } from 'vitest';
import { inlineText } from '../article/inline.ts';
import { columnName, comparedSeries, comparedTable } from './compared.ts';

const BOWS = [
  { subject: 'Pernambuco', weight: 60.5, sold: 1_200, hair: 'white', madeIn: ['Mirecourt', 'Bremen'], price: '' },
  { subject: 'Carbon', weight: 58, sold: 90, hair: null, madeIn: [], price: '  ' },
  { subject: 'Snakewood', weight: 63, sold: 4, hair: 'black | brown', stiff: true },
];
const textOf = (columns: string[], language = 'en', items = BOWS) => {
  const table = comparedTable(items, columns, 't', language);
  return table && [table.head.map(inlineText), ...table.rows.map((row) => row.map(inlineText))];
};

test('things stand side by side, a line each; what nobody knows is left out, what one lacks is a dash', () => {
  expect(textOf(['weight', 'hair', 'price', 'madeIn', 'stiff'])).toEqual([
    ['', 'Weight', 'Hair', 'Made in', 'Stiff'],
    ['Pernambuco', '60.5', 'white', 'Mirecourt, Bremen', '–'],
    ['Carbon', '58', '–', '–', '–'],
    ['Snakewood', '63', 'black | brown', '–', '✓'],
  ]);
  expect(textOf(['weight', 'sold'], 'de')!.slice(1)).toEqual([
    ['Pernambuco', '60,5', '1.200'],
    ['Carbon', '58', '90'],
    ['Snakewood', '63', '4'],
  ]);
});

test('of products of a list what the list says of them counts', () => {
  const products = [
    { subject: 'A rest', product: { price: 19.5, category: 'Rests', priceText: '19.50 €' } },
    { subject: 'A mute', product: { price: 6, category: 'Mutes' } },
  ];
  expect(textOf(['price', 'category'], 'en', products as never)).toEqual([
    ['', 'Price', 'Category'],
    ['A rest', '19.5', 'Rests'],
    ['A mute', '6', 'Mutes'],
  ]);
});

test('one thing is not compared, nor are things nothing is known of', () => {
  expect(textOf(['weight'], 'en', BOWS.slice(0, 1))).toBeNull();
  expect(textOf(['price', 'none'])).toBeNull();
  expect(textOf([])).toBeNull();
});

test('columns of figures can be drawn, others cannot', () => {
  const series = comparedSeries(BOWS, ['weight', 'hair', 'price', 'sold', 'none']);
  expect(series.map(({ what, values, labels }) => [what, values, labels])).toEqual([
    ['Weight', [60.5, 58, 63], ['Pernambuco', 'Carbon', 'Snakewood']],
    ['Sold', [1_200, 90, 4], ['Pernambuco', 'Carbon', 'Snakewood']],
  ]);
});

test.each([
  ['price', 'Price'],
  ['drainsWell', 'Drains well'],
  ['weight_in_grams', 'Weight in grams'],
  ['co2PerYear', 'Co2 per year'],
])('%s is called %s', (field, name) => {
  expect(columnName(field)).toBe(name);
});
