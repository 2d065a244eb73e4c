import fc from 'fast-check';
import Papa from 'papaparse';
import { expect, test } from 'vitest';
import { csvRows, type TableFault } from './csv.ts';
import { scanRows } from './scan.ts';

const cellsOf = (text: string) => scanRows(text, ',').rows.map(({ cells }) => cells);

test('whole rows are read, what is not all there yet is left', () => {
  expect(cellsOf('a,b\n"x, y","say ""hush"""\n"two\nlines",z\nhalf')).toEqual([
    ['a', 'b'],
    ['x, y', 'say "hush"'],
    ['two\nlines', 'z'],
  ]);
  expect(scanRows('a,b\n"not yet', ',')).toMatchObject({ end: 4, odd: false });
  expect(scanRows('a,"b"', ',')).toMatchObject({ rows: [], end: 0, odd: false });
  expect(scanRows('a\n"b"x,c\n', ',')).toMatchObject({ end: 2, odd: true });
  expect(scanRows('\n,\n\n\n,"",\n', ',')).toMatchObject({ blank: 3, end: 10 });
  expect(cellsOf(',\n\n,"",\n')).toEqual([
    ['', ''],
    ['', '', ''],
  ]);
});

test('cells beyond the last are not there', () => {
  const [row] = scanRows('a,b\n', ',').rows;
  expect([row!.at(0), row!.at(1), row!.at(2), row!.length]).toEqual(['a', 'b', undefined, 2]);
});

async function* inParts(text: string, size: number): AsyncGenerator<string> {
  for (let at = 0; at < text.length; at += size) yield text.slice(at, at + size);
}

test('a row is blank when nothing but spaces stands in it', () => {
  const { rows } = scanRows('a\n ,\t,""\n\u00a0\n ,b\n""\n" x"\n', ',');
  expect(rows.map(({ blank }) => blank)).toEqual([false, true, true, false, true, false]);
});

test('agrees with the parser on any rows, in parts of any size', async () => {
  const cell = fc.stringMatching(/^[ab",;\n ]{0,6}$/);
  await fc.assert(
    fc.asyncProperty(
      fc.array(fc.array(cell, { minLength: 1, maxLength: 4 }), { minLength: 1, maxLength: 8 }),
      fc.integer({ min: 1, max: 9 }),
      async (rows, size) => {
        const text = Papa.unparse(rows, { newline: '\n', quotes: true });
        const faults: TableFault[] = [];
        const read: string[][] = [];
        for await (const batch of csvRows(inParts(text, size), ',', faults))
          read.push(...batch.map((row) => row.cells));
        expect(read).toEqual(rows.filter((cells) => !(cells.length === 1 && cells[0] === '')));
        expect(faults).toEqual([]);
      },
    ),
    { numRuns: 300 },
  );
});
