import { expect, test } from 'vitest';
import { lines } from '../testing/corpus.ts';
import { CELL_TYPES, isPlain, readCell } from './cell.ts';
import { guessBelow, guessHeader, guessSeparator, guessSheet, letters } from './guess.ts';

const SHEETS: Record<string, string[][]> = {
  jars: [
    ['SKU', 'Name', 'Price', 'Since', 'In stock', 'Link'],
    ['J-1', 'A jar of glass', '12.50', '2024-03-01', 'yes', 'https://crockhaven.example/j1'],
    ['J-2', 'A crock of stoneware', '48', '2023-11-20', 'no', 'https://crockhaven.example/j2'],
    ['J-3', 'Weights', '9.90', '2025-01-09', 'yes', ''],
  ],
  'no header': [
    ['J-1', 'A jar of glass', '12.50'],
    ['J-2', 'A crock of stoneware', '48'],
    ['J-3', 'Weights for a jar', '9.90'],
  ],
  'a title above': [
    ['Our jars, spring 2026'],
    [],
    ['Name', 'Litres', 'Litres', ''],
    ['Small', '1', '1.2', 'x'],
    ['Large', '5', '5.5', 'y'],
  ],
  'one column': [['Subject'], ['How to sharpen a knife'], ['How to store rainwater']],
  'numbers alone': [
    ['1', '2'],
    ['3', '4'],
  ],
  empty: [],
  blank: [
    ['', ''],
    ['', ''],
  ],
  uneven: [['Name', 'Size'], ['Oak'], ['Ash', '3', 'tall', 'green'], ['Elm', '4', '']],
  days: [
    ['Tag', 'Thema'],
    ['01.03.2026', 'Messer'],
    ['02.03.2026', 'Regentonne'],
    ['2026-03-03', 'Kraut'],
  ],
  'rows that repeat': [
    ['Name', 'Kind'],
    ['Oak', 'tree'],
    ['Oak', 'tree'],
    ['Ash', 'tree'],
    ['Elm', 'tree'],
  ],
  wide: [
    Array.from({ length: 30 }, (_, i) => (i % 3 === 0 ? '' : `Heading ${i}`)),
    Array.from({ length: 30 }, (_, i) => String(i)),
  ],
  'a long heading': [
    [`A ${'very '.repeat(30)}long heading`, 'B'],
    ['x', 'y'],
  ],
  answers: [
    ['Question', 'Yes'],
    ['Is it oak?', 'true'],
    ['Is it ash?', 'false'],
  ],
};

test('what sheets seem to be', async () => {
  const all = Object.entries(SHEETS).flatMap(([name, rows]) => [
    `= ${name}: header ${guessHeader(rows)}`,
    JSON.stringify(guessSheet(rows)),
    ...[null, 1, 2, 3].map((header) => `below ${header}: ${JSON.stringify(guessBelow(rows, header))}`),
  ]);
  const many = Array.from({ length: 400 }, (_, i) => [
    `A-${i % 190}`,
    `A line about ${i}`,
    String(i),
    i === 350 ? 'text' : '5',
  ]);
  await expect(
    lines([...all, JSON.stringify(guessSheet([['Code', 'Title', 'N', 'Five'], ...many]))]),
  ).toMatchFileSnapshot('listed/sheets.txt');
});

test('what parts the columns, and what columns are called without a name', async () => {
  const texts = [
    'a,b,c\n1,2,3',
    'a;b;c\n1,5;2,5;3,5',
    'a\tb\n1,2\t3',
    'a|b|c\n1|2|3',
    'a b c',
    '',
    '"a,b";c\n"d,e";f',
    'a,b\nc;d\ne;f',
    '1.5;2\n3;4',
    'x,"y;z;w"\nu,"v;t;s"',
  ];
  const parted = texts.map((text) => `${JSON.stringify(text)}: ${JSON.stringify(guessSeparator(text))}`);
  const named = [0, 1, 24, 25, 26, 27, 51, 52, 700, 701, 702, 703, 16_383].map((n) => `${n}: ${letters(n)}`);
  await expect(lines([...parted, ...named])).toMatchFileSnapshot('listed/columns.txt');
});

test('cells as they are read', async () => {
  const cells = [
    '',
    ' ',
    'salt',
    '12',
    '-12',
    '12.5',
    '1,200',
    '1.200,50',
    '1,200.50',
    '12,5',
    '€ 12',
    '12 %',
    '0x10',
    '1e3',
    '+5',
    '١٢',
    'yes',
    'No',
    'TRUE',
    'falsch',
    'ja',
    'nein',
    'x',
    '1',
    '0',
    '2026-03-01',
    '01.03.2026',
    '3/1/2026',
    '1 March 2026',
    '31.02.2026',
    '2026-13-01',
    '2026-3-1',
    '45000',
    'https://crockhaven.example',
    'crockhaven.example',
    'http://',
    'javascript:alert(1)',
    'ftp://a.example',
    '=SUM(A1)',
    '#N/A',
    '\u0000',
    '\u202e abc',
    'a\nb',
    'a'.repeat(50),
  ];
  const all = cells.map(
    (raw) =>
      `${JSON.stringify(raw)} ${isPlain(raw)}: ${CELL_TYPES.map((type) => `${type} ${JSON.stringify(readCell(type, raw))}`).join(', ')}`,
  );
  await expect(lines(all)).toMatchFileSnapshot('listed/cells.txt');
});
