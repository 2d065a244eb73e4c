import { CatalogueSettings } from '@grivo/contract';
import { describe, expect, test } from 'vitest';
import { guessColumns } from './columns.ts';
import { figureOf, ordered, type Product, partnerLinkOf, productOf, refusedFor } from './product.ts';
import { recordsOf } from './read.ts';

const settings = (more: object = {}) => CatalogueSettings.parse({ kind: 'catalogue', ...more });
const product = (more: Partial<Product> = {}): Product => ({
  id: 'A 1',
  name: 'A crock',
  link: 'https://shop.example/p/a?x=1',
  category: 'Crocks > Large',
  language: 'en',
  price: 20,
  priceText: '20 EUR',
  popularity: null,
  description: '',
  picture: null,
  ...more,
});

test.each([
  ['€ 1.299,00', 1_299],
  ['1,299.50 USD', 1_299.5],
  ['49', 49],
  ['49,9', 49.9],
  ['1.299', 1_299],
  ['12.50', 12.5],
  ["1'299.00", 1_299],
  ['from 5', 5],
  ['free', null],
  ['', null],
])('the figure in %j', (text, value) => expect(figureOf(text)).toBe(value));

describe('partner links', () => {
  test.each([
    ['{link}?partner={partner}', 'https://shop.example/p/a?x=1&partner=us%20%26%20them'],
    [
      'https://go.example/{partner}/?to={link}',
      'https://go.example/us%20%26%20them/?to=https%3A%2F%2Fshop.example%2Fp%2Fa%3Fx%3D1',
    ],
    ['https://shop.example/{id}?p={partner}', 'https://shop.example/A%201?p=us%20%26%20them'],
    ['', 'https://shop.example/p/a?x=1'],
  ])('%s', (partnerLink, link) => expect(partnerLinkOf(product(), { partnerLink, partner: 'us & them' })).toBe(link));

  test('a pattern that makes no address of the web gives none', () => {
    expect(partnerLinkOf(product(), { partnerLink: 'javascript:{link}', partner: 'x' })).toBeNull();
  });
});

describe('what passes', () => {
  test.each([
    [{ categories: ['crocks'] }, {}, null],
    [{ categories: ['lids'] }, {}, 'category Crocks > Large'],
    [{ languages: ['de'] }, {}, 'language en'],
    [{ languages: ['de'] }, { language: '' }, null],
    [{ price: { from: 30, to: null } }, {}, 'price 20 EUR, below 30'],
    [{ price: { from: null, to: 10 } }, { price: null, priceText: '' }, 'price not said, above 10'],
  ])('%j with %j', (asked, of, refused) => expect(refusedFor(product(of), settings(asked))).toBe(refused));

  test('orders; unknown figures last; categories in turn', () => {
    const all = [
      product({ id: '1', category: 'a', price: 5, popularity: 1 }),
      product({ id: '2', category: 'a', price: 3, popularity: 9 }),
      product({ id: '3', category: 'b', price: null, popularity: null }),
      product({ id: '4', category: 'b', price: 4, popularity: 2 }),
    ].map((one) => ({ product: one }));
    const ids = (order: 'as listed' | 'most popular' | 'cheapest' | 'dearest', spread = false) =>
      ordered(all, { order, spread })
        .map((one) => one.product.id)
        .join('');
    expect(ids('as listed')).toBe('1234');
    expect(ids('most popular')).toBe('2413');
    expect(ids('cheapest')).toBe('2413');
    expect(ids('dearest')).toBe('1423');
    expect(ids('cheapest', true)).toBe('2413');
    expect(ids('as listed', true)).toBe('1324');
  });
});

describe('lists', () => {
  const read = async (text: string) => {
    const got = await recordsOf((first) => Buffer.from(text).subarray(0, first), '', 'guess');
    if (!got.ok) throw new Error(got.problem);
    return got;
  };

  test('XML: the repeated element, attributes and inner elements as columns, several of a name joined', async () => {
    const { format, records } = await read(
      '<?xml version="1.0"?><feed><made>now</made><list><product id="7"><name>A &amp; B</name><price currency="EUR">5</price><tag>x</tag><tag>y</tag></product><product id="8"><name>C</name></product></list></feed>',
    );
    expect(format).toBe('XML');
    expect(records).toEqual([
      { id: '7', name: 'A & B', price: '5', 'price.currency': 'EUR', tag: 'x, y' },
      { id: '8', name: 'C' },
    ]);
  });

  test('JSON: the longest list in it, what lies within named with a dot', async () => {
    const { records } = await read(
      '{"meta": [{"a": 1}], "data": {"items": [{"sku": 1, "price": {"amount": 2.5}, "tags": ["a", "b"]}, {"sku": 2}, 3]}}',
    );
    expect(records).toEqual([{ sku: '1', 'price.amount': '2.5', tags: 'a, b' }, { sku: '2' }]);
  });

  test('JSON: brackets and quotes in texts are letters; lists in lists and beyond three objects are not looked into', async () => {
    const { records } = await read(
      '{"q": "[{\\"a\\": 1}, {}]\\\\", "x": [[{"b": 1}, {"b": 2}, {"b": 3}]], "d": {"e": {"f": {"g": [{"h": 1}, {"h": 2}]}}}, "list": [{"n": "}] \\" ☃", "in": [{}, {}, {}]}, {"n": 2}]}',
    );
    expect(records).toEqual([{ n: '}] " ☃' }, { n: '2' }]);
  });

  test('JSON and XML in another character set, and letters of UTF-8 where parts of a long list meet', async () => {
    const long = `<list>${'<p><n>ä€😀</n></p>'.repeat(30_000)}</list>`;
    const { records } = await read(long);
    expect(new Set(records.map(({ n }) => n))).toEqual(new Set(['ä€😀']));
    for (const text of ['[{"n": "Größe"}, {"n": "b"}]', '<a><b><n>Größe</n></b><b><n>b</n></b></a>'])
      for (const encoding of ['latin1', 'utf16le'] as const) {
        const bytes = Buffer.from(encoding === 'utf16le' ? `\ufeff${text}` : text, encoding);
        const got = await recordsOf((first) => bytes.subarray(0, first), '', 'guess');
        expect(got).toMatchObject({ ok: true, records: [{ n: 'Größe' }, { n: 'b' }] });
      }
  });

  test('CSV: the first row names the columns', async () => {
    const { records } = await read('SKU;Name\n1;A\n\n2;B\n');
    expect(records).toEqual([
      { SKU: '1', Name: 'A' },
      { SKU: '2', Name: 'B' },
    ]);
  });

  test.each([
    ['<!doctype html><p>x', /web page/],
    ['{"a": 1}', /no list/],
    ['<a/>', /no list/],
    ['<!DOCTYPE a [<!ENTITY b "c">]><a><b/><b/></a>', /entities/],
    [`<!DOCTYPE a [${' '.repeat(262_127)}<!ENTITY b "c">]><a><b/><b/></a>`, /entities/],
    ['[{"a": 1}, {"a": 2}', /ends in the middle/],
    ['[{"a": 1}, {"a": "2}]', /a text in it has no end/],
    ['{"a": [1, 2}]', /a bracket at byte 12 closes nothing/],
    ['[{"a": 1}, {"a": 2,}]', /entry 2: it is broken JSON/],
    [`[{"a": 1}, {"a": "${'x'.repeat(2_000_000)}"}]`, /entry 2 of it is longer than 2 MB/],
    [`${'['.repeat(300)}${']'.repeat(300)}`, /too deep/],
  ])('%.60s is told', async (text, says) => {
    const got = await recordsOf((first) => Buffer.from(text).subarray(0, first), '', 'guess');
    expect(got.ok ? '' : got.problem).toMatch(says);
  });

  test('columns by their names in whatever writing; a product by them', () => {
    const record = {
      'g:id': '7',
      Titel: 'Ein Topf',
      'Preis (EUR)': '5,50',
      deepLink: '/p/7',
      'offer.price': '6',
      Bild: 'b.png',
    };
    const columns = guessColumns([record]);
    expect(columns).toMatchObject({ name: 'Titel', link: 'deepLink', picture: 'Bild', price: 'offer.price' });
    expect(productOf(record, columns, 'https://shop.example/list.xml')).toMatchObject({
      name: 'Ein Topf',
      link: 'https://shop.example/p/7',
      price: 6,
      picture: 'https://shop.example/b.png',
    });
  });
});
