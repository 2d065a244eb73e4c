import * as fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { CELL_TYPES, readCell } from './cell.ts';
import { guessBelow, guessSeparator, guessSheet, headersOf, letters } from './guess.ts';
import { rowReader } from './row.ts';

const STOCK = [
  ['Stock autumn, printed 2 Nov'],
  ['SKU', 'Name', 'Kind', 'Litres', 'Price €', 'Arrived', 'Notes'],
  ['CH-0101', 'Kraut crock, straight', 'crock', '5', '64.00', '2024-09-02', 'Made in one piece.'],
  ['CH-0102', 'Kraut crock, belly', 'crock', '10', '92.00', '2024-09-02', 'The lid has a groove for water.'],
  ['CH-0508', 'Bail-top jar', 'jar', 'five', '11.50', '2024-11-31', ''],
  ...Array.from({ length: 20 }, (_, i) => [
    `CH-06${i}`,
    `Weight ${i}`,
    'weight',
    '0.5',
    '7.00',
    '2024-10-30',
    'Glass.',
  ]),
];

describe('cells', () => {
  test.each([
    ['1,200.50', 1_200.5],
    ['1.200,50', 1_200.5],
    ['€ 64.00', 64],
    ['2,5 l', 2.5],
    ['-3', -3],
    ['1 200', 1_200],
  ])('‘%s’ is the figure %d', (raw, value) => expect(readCell('number', raw)).toEqual({ ok: true, value }));

  test('what is none says so, and what it may have meant', () => {
    expect(readCell('number', 'five')).toEqual({ ok: false, problem: '‘five’ is not a number', reads: '5' });
    expect(readCell('number', 'plenty')).toMatchObject({ ok: false, reads: null });
    expect(readCell('day', '2024-11-31')).toEqual({
      ok: false,
      problem: 'there is no 31 November',
      reads: '2024-12-01',
    });
    expect(readCell('day', '29.02.2024')).toEqual({ ok: true, value: '2024-02-29' });
    expect(readCell('day', '29.02.2023')).toMatchObject({ ok: false, reads: '2023-03-01' });
    expect(readCell('address', 'crockhaven.example/jar')).toMatchObject({
      ok: false,
      reads: 'https://crockhaven.example/jar',
    });
    expect(readCell('yes or no', 'Ja')).toEqual({ ok: true, value: true });
  });

  test('what it offers instead reads well, and no text makes it throw', () => {
    fc.assert(
      fc.property(fc.constantFrom(...CELL_TYPES), fc.string({ maxLength: 20 }), (type, raw) => {
        const read = readCell(type, raw);
        if (!read.ok && read.reads !== null) expect(readCell(type, read.reads).ok).toBe(true);
      }),
    );
  });
});

describe('what a sheet seems to be', () => {
  test('separators, also where others stand in quotes', () => {
    expect(guessSeparator('a;b;c\n"1,5";"2,5";x\n3;4;5')).toBe(';');
    expect(guessSeparator('a\tb\n1\t2')).toBe('\t');
    expect(guessSeparator('one phrase\nanother phrase')).toBe(',');
  });

  test('header, types, what tells rows apart and what is the title; slips do not mislead it', () => {
    const guessed = guessSheet(STOCK);
    expect(guessed).toMatchObject({ header: 2, identity: ['SKU'], title: 'Name' });
    expect(guessed.columns.map(({ field, type }) => `${field} ${type}`)).toEqual([
      'sku text',
      'name text',
      'kind text',
      'litres number',
      'price number',
      'arrived day',
      'rowNotes text',
    ]);
  });

  test('a sheet of figures alone has no header, and its columns get letters', () => {
    const guessed = guessSheet([
      ['1', '2'],
      ['3', '4'],
    ]);
    expect(guessed.header).toBeNull();
    expect(guessed.columns.map(({ header }) => header)).toEqual(['column A', 'column B']);
    expect(guessBelow(STOCK, null).columns).toHaveLength(7);
    expect([0, 25, 26, 701, 702].map(letters)).toEqual(['A', 'Z', 'AA', 'ZZ', 'AAA']);
    expect(headersOf(['Name', 'name', ''], 3)).toEqual(['Name', 'name 2', 'column C']);
  });
});

describe('rows', () => {
  const { read, fieldsOf } = rowReader(guessSheet(STOCK));

  test('are told by their identity, and bring fields of their types along', () => {
    expect(read(STOCK[3]!)).toEqual({ apart: 'CH-0102', subject: 'Kraut crock, belly', faults: [] });
    expect(fieldsOf(STOCK[3]!)).toEqual({
      fields: {
        sku: 'CH-0102',
        name: 'Kraut crock, belly',
        kind: 'crock',
        litres: 10,
        price: 92,
        arrived: '2024-09-02',
        rowNotes: 'The lid has a groove for water.',
      },
      // The title and what tells rows apart are nothing to write from.
      row: {
        Kind: 'crock',
        Litres: '10',
        'Price €': '92.00',
        Arrived: '2024-09-02',
        Notes: 'The lid has a groove for water.',
      },
    });
  });

  test('say at their cells what is wrong', () => {
    expect(read(STOCK[4]!).faults).toEqual([
      { header: 'Litres', problem: '‘five’ is not a number', reads: '5', grave: true },
      { header: 'Arrived', problem: 'there is no 31 November', reads: '2024-12-01', grave: true },
    ]);
    expect(read(['', '', 'jar']).faults.map(({ header, problem }) => `${header}: ${problem}`)).toEqual([
      'Name: no title',
      'SKU: nothing tells this row apart',
    ]);
  });

  test('that are told apart by two columns need both of them', () => {
    const two = rowReader({ ...guessSheet(STOCK), identity: ['SKU', 'Name'] });
    const [sku, name] = ['SKU', 'Name'].map((header) => STOCK[1]!.indexOf(header));
    const without = (column: number) => STOCK[2]!.map((cell, i) => (i === column ? ' ' : cell));
    expect(two.read(STOCK[2]!).apart).toContain('\u001f');
    expect(two.read(without(sku!)).apart).toBeNull();
    expect(two.read(without(name!)).apart).toBeNull();
    expect(two.identityOf(STOCK[2]!)).not.toBe(two.identityOf(STOCK[3]!));
  });

  test('without a column that tells them apart, the whole row does', () => {
    const whole = rowReader({ ...guessSheet(STOCK), identity: [] });
    expect(whole.identityOf(STOCK[2]!)).not.toBe(whole.identityOf(STOCK[3]!));
    expect(whole.identityOf(STOCK[2]!)).toBe(whole.identityOf([...STOCK[2]!]));
  });
});
