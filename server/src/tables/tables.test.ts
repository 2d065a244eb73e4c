import { utils, write } from '@e965/xlsx';
import { afterAll, describe, expect, test } from 'vitest';
import { ReadingRoom } from '../reading/room.ts';
import { decoded, guessEncoding } from './decode.ts';
import { openTable, type TableReading } from './open.ts';
import { unpackedSize } from './workbook.ts';

const reader = new ReadingRoom();
afterAll(() => reader.close());

const GUESS: TableReading = { encoding: 'guess', separator: 'guess', table: null };

async function* parts(bytes: Uint8Array, size = 7): AsyncGenerator<Uint8Array> {
  for (let at = 0; at < bytes.length; at += size) yield bytes.subarray(at, at + size);
}

async function rowsOf(bytes: Uint8Array | string, how: Partial<TableReading> = {}, size = 7) {
  const opened = await openTable(reader, parts(typeof bytes === 'string' ? Buffer.from(bytes) : bytes, size), {
    ...GUESS,
    ...how,
  });
  if (!opened.ok) return opened.problem;
  const rows: string[][] = [];
  for await (const batch of opened.table.rows) rows.push(...batch.map(({ cells }) => cells));
  return { rows, faults: opened.table.faults, encoding: opened.table.encoding, separator: opened.table.separator };
}

const TEXT = 'Größe;Preis\r\nKlein;6,50\r\nGroß;"9,20"\r\n';
const ROWS = [
  ['Größe', 'Preis'],
  ['Klein', '6,50'],
  ['Groß', '9,20'],
];

describe('encodings', () => {
  test.each([
    ['utf-8', Buffer.from(TEXT)],
    ['utf-8', Buffer.from(`\ufeff${TEXT}`)],
    ['windows-1252', Buffer.from(TEXT, 'latin1')],
    ['utf-16le', Buffer.from(`\ufeff${TEXT}`, 'utf16le')],
    ['utf-16le', Buffer.from(TEXT, 'utf16le')],
    ['utf-16be', Buffer.from(`\ufeff${TEXT}`, 'utf16le').swap16()],
  ] as const)('%s is told from its bytes', async (encoding, bytes) => {
    expect(guessEncoding(bytes)).toBe(encoding);
    expect(await rowsOf(bytes)).toMatchObject({ rows: ROWS, encoding, separator: ';', faults: [] });
  });

  test('plain letters first and others later, also where a letter is parted between two parts', async () => {
    const text = `${'plain;1\n'.repeat(40)}Größe;2\nplain;3\n`;
    for (const size of [1, 7, 331, 1_000])
      for (const [encoding, bytes] of [
        ['utf-8', Buffer.from(text)],
        ['windows-1252', Buffer.from(text, 'latin1')],
      ] as const) {
        const out: string[] = [];
        for await (const part of decoded(parts(bytes, size), encoding)) out.push(part);
        expect(out.join('')).toBe(text);
      }
  });

  test('line ends are evened, also where a part ends between the two signs', async () => {
    const out: string[] = [];
    for await (const text of decoded(parts(Buffer.from('a\r\nb\rc\n'), 2), 'utf-8')) out.push(text);
    expect(out.join('')).toBe('a\nb\nc\n');
  });
});

describe('separated cells', () => {
  test('hold separators, quotes and lines inside quotes', async () => {
    expect(await rowsOf('a,b\n"x, y","say ""hush"""\n"two\nlines",z')).toMatchObject({
      rows: [
        ['a', 'b'],
        ['x, y', 'say "hush"'],
        ['two\nlines', 'z'],
      ],
    });
  });

  test('a row that never ends is told as that', async () => {
    const endless = Buffer.from(`name,price\n${'a'.repeat(2_000_000)}`);
    await expect(rowsOf(endless, {}, 65_536)).rejects.toThrow('row 2 is longer than 500,000 characters');
  });

  test('a quote that is never closed swallows nothing, and is named with its row', async () => {
    expect(await rowsOf('a,b\n1,2\n"open,3\n4,5\n6,7')).toMatchObject({
      rows: [
        ['a', 'b'],
        ['1', '2'],
        ['"open', '3'],
        ['4', '5'],
        ['6', '7'],
      ],
      faults: [{ row: 3, problem: 'a quote is opened and never closed' }],
    });
  });

  test('nor in the middle of a large file', async () => {
    const line = `${'x'.repeat(98)},y\n`;
    const read = await rowsOf(`a,b\n"open,1\n${line.repeat(25_000)}`, {}, 65_536);
    if (typeof read === 'string') throw new Error(read);
    expect(read.rows).toHaveLength(25_002);
    expect(read.faults).toEqual([{ row: 2, problem: 'a quote is opened and never closed' }]);
  });

  test('what is no table says so', async () => {
    expect(await rowsOf('')).toBe('it is empty');
    expect(await rowsOf('<!doctype html><p>Sign in')).toBe('it is a web page and no sheet');
    expect(await rowsOf(Buffer.from([0x89, 0x50, 0x4e, 0x47, 1, 2, 3, 4]))).toBe(
      'it is neither a text nor a workbook that can be read',
    );
  });
});

describe('workbooks', () => {
  const book = (kind: 'xlsx' | 'ods') => {
    const sheet = utils.aoa_to_sheet([
      ['SKU', 'Price', 'Arrived', 'Kind'],
      ['CH-1', 5, new Date(Date.UTC(2024, 8, 2)), 'crock'],
      ['CH-2', null, new Date(Date.UTC(2024, 8, 3)), ''],
    ]);
    sheet['B3'] = { t: 'n', v: 10, f: 'B2*2' };
    sheet['!merges'] = [utils.decode_range('D2:D3')];
    const all = utils.book_new();
    utils.book_append_sheet(all, utils.aoa_to_sheet([['nothing']]), 'Cover');
    utils.book_append_sheet(all, sheet, 'Stock');
    return write(all, { type: 'buffer', bookType: kind }) as Buffer;
  };

  test.each(['xlsx', 'ods'] as const)('%s: formulas, days and merged cells', async (kind) => {
    expect(await rowsOf(book(kind), { table: 'Stock' }, 4_096)).toMatchObject({
      rows: [
        ['SKU', 'Price', 'Arrived', 'Kind'],
        ['CH-1', '5', '2024-09-02', 'crock'],
        ['CH-2', '10', '2024-09-03', kind === 'xlsx' ? 'crock' : expect.any(String)],
      ],
    });
  });

  test('the tables are named, and the first is read when none is asked for', async () => {
    const opened = await openTable(reader, parts(book('xlsx'), 4_096), GUESS);
    expect(opened.ok && opened.table.tables).toEqual(['Cover', 'Stock']);
    if (opened.ok) for await (const _rows of opened.table.rows);
  });

  test('one that would unpack to more than the limit is refused before it is unpacked; one cut off says so', async () => {
    const bytes = Buffer.from(book('xlsx'));
    const at = bytes.indexOf(Buffer.from([0x50, 0x4b, 1, 2]));
    bytes.writeUInt32LE(3_000_000_000, at + 24);
    expect(unpackedSize(bytes)).toBeGreaterThan(2_999_999_999);
    expect(await rowsOf(bytes, {}, 4_096)).toMatch(/^unpacked it would be 3,00\d MB; the limit is 250 MB$/);
    expect(await rowsOf(bytes.subarray(0, 900), {}, 4_096)).toBe('it begins as a workbook, but its end is missing');
    const broken = Buffer.from(book('xlsx'));
    broken.fill(7, 40, 400);
    await expect(rowsOf(broken, {}, 4_096)).resolves.toBeDefined();
  });
});
