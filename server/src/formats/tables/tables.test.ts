import { utils, write } from '@e965/xlsx';
import { afterAll, describe, expect, test } from 'vitest';
import { ReadingRoom } from '../../ground/reading/room.ts';
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

  test.each(['ä', '€', '😀'])('a sample that ends inside %s is UTF-8; half a letter before others is not', (letter) => {
    const bytes = Buffer.from(`plain ${letter}`);
    for (let end = 6; end <= bytes.length; end++) expect(guessEncoding(bytes.subarray(0, end))).toBe('utf-8');
    for (let end = 7; end < bytes.length; end++)
      expect(guessEncoding(Buffer.concat([bytes.subarray(0, end), Buffer.from('abcd')]))).toBe('windows-1252');
    expect(guessEncoding(Buffer.from([0x80, 0x80, 0x80, 0x80]))).toBe('windows-1252');
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

  test.each([
    // Written by people: the text, its rows, the rows that are named.
    [
      'a line that names the separator',
      'sep=;\na;b\n1;2,5\n',
      [
        ['a', 'b'],
        ['1', '2,5'],
      ],
      [],
    ],
    [
      'a space before a quote',
      'a, b\nA, "one, two"\nB, "three"',
      [
        ['a', ' b'],
        ['A', 'one, two'],
        ['B', 'three'],
      ],
      [],
    ],
    [
      'a space behind a quote',
      'a,b\n"x" ,"y"  \n1,2\n',
      [
        ['a', 'b'],
        ['x', 'y'],
        ['1', '2'],
      ],
      [],
    ],
    [
      'a space before a quote that is a letter',
      'a,b\n "x" and y,2\n',
      [
        ['a', 'b'],
        [' "x" and y', '2'],
      ],
      [],
    ],
    [
      'letters behind a closing quote',
      'a,b\n"A"b,2\nC,3\n',
      [
        ['a', 'b'],
        ['"A"b', '2'],
        ['C', '3'],
      ],
      [2],
    ],
    [
      'a quote within a quotation',
      'a,b\n"5" pipe",2\nC,3\n',
      [
        ['a', 'b'],
        ['5" pipe', '2'],
        ['C', '3'],
      ],
      [2],
    ],
    [
      'and one that swallows no line',
      'a,b\n\n"5" pipe,2\n"C",3\n',
      [
        ['a', 'b'],
        ['"5" pipe', '2'],
        ['C', '3'],
      ],
      [3],
    ],
  ] as const)('%s', async (_, text, rows, named) => {
    for (const size of [1, 7, 1_000]) {
      const read = await rowsOf(text, {}, size);
      if (typeof read === 'string') throw new Error(read);
      expect(read.rows, `in parts of ${size}`).toEqual(rows);
      expect(
        read.faults.map(({ row }) => row),
        `in parts of ${size}`,
      ).toEqual(named);
    }
  });

  test('lines with nothing in them are no rows, and more than a workbook has are refused', async () => {
    expect(await rowsOf('\n\na,b\n\r\n1,2\n\n')).toMatchObject({
      rows: [
        ['a', 'b'],
        ['1', '2'],
      ],
    });
    await expect(rowsOf('a\n'.repeat(1_048_577), {}, 65_536)).rejects.toThrow('it has more than 1,048,576 rows');
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

  const saved = (rows: unknown[][], change: (book: ReturnType<typeof utils.book_new>) => void, bookType = 'xlsx') => {
    const all = utils.book_new();
    utils.book_append_sheet(all, utils.aoa_to_sheet(rows), 'First');
    change(all);
    return write(all, { type: 'buffer', bookType: bookType as 'xlsx' }) as Buffer;
  };

  test('the first table that is not hidden is read when none is asked for', async () => {
    const hidden = saved([['notes to self']], (all) => {
      utils.book_append_sheet(all, utils.aoa_to_sheet([['name'], ['Crock']]), 'Stock');
      all.Workbook = { Sheets: [{ Hidden: 1 }, { Hidden: 0 }] };
    });
    expect(await rowsOf(hidden, {}, 4_096)).toMatchObject({ rows: [['name'], ['Crock']] });
    expect(await rowsOf(hidden, { table: 'First' }, 4_096)).toMatchObject({ rows: [['notes to self']] });
  });

  test('times keep their seconds, figures lose the noise of rounding', async () => {
    const rows = [
      ['at', 'of the day', 'sum'],
      [
        new Date(Date.UTC(2024, 8, 2, 13, 45, 30)),
        { t: 'n', v: (13 * 3_600 + 45 * 60 + 30) / 86_400, z: 'hh:mm:ss' },
        0.1 + 0.2,
      ],
    ];
    expect(
      await rowsOf(
        saved(rows, () => undefined),
        {},
        4_096,
      ),
    ).toMatchObject({
      rows: [expect.anything(), ['2024-09-02 13:45:30', '13:45:30', '0.3']],
    });
  });

  test('columns that are not read are named', async () => {
    const wide = saved([Array.from({ length: 1_003 }, (_, i) => `c${i}`), ['x']], () => undefined);
    const read = await rowsOf(wide, {}, 65_536);
    expect(read).toMatchObject({ faults: [{ row: 1, problem: 'columns beyond the 1,000th are not read' }] });
  });

  test('one as a single XML file is a workbook too', async () => {
    const flat = saved(
      [
        ['name', 'price'],
        ['Crock', 5.5],
      ],
      () => undefined,
      'fods',
    );
    expect(await rowsOf(flat, {}, 4_096)).toMatchObject({
      rows: [
        ['name', 'price'],
        ['Crock', '5.5'],
      ],
    });
  });

  test('an old one and a protected one say what they are', async () => {
    const old = saved([['a']], () => undefined, 'biff8');
    expect(await rowsOf(old, {}, 4_096)).toBe('it is a workbook of the old form (.xls); save it as .xlsx, .ods or CSV');
    const closed = Buffer.concat([old.subarray(0, 512), Buffer.from('EncryptedPackage', 'utf16le'), old.subarray(512)]);
    expect(await rowsOf(closed, {}, 4_096)).toBe('it is protected by a password; save it without one');
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
