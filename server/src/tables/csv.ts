import { setImmediate } from 'node:timers/promises';
import Papa from 'papaparse';
import { ArrayRow, type TableRow } from './row.ts';
import { scanRows } from './scan.ts';

/** A row that could not be read as it was meant, from 1. */
export interface TableFault {
  row: number;
  problem: string;
}

/** No row is longer than this; what is, is no row, or has a quote that was never closed. */
const LONGEST_ROW = 500_000;
/** A row that is not well formed is looked for in so many letters; one that is no row there is taken by its first line. */
const LONGEST_ODD = 65_536;
/** Cells a row may have. */
export const MOST_COLUMNS = 1_000;
/** Rows a table may have: as many as a sheet of a workbook. */
export const MOST_ROWS = 1_048_576;
/** Quotes that are never closed, after which a table is no table: for each the rest is read anew. */
const MOST_UNCLOSED = 20;
const MOST_FAULTS = 1_000;
/** Letters read without letting others have their turn. */
const SLICE = 131_072;

/** A table that is not read on, with why. */
export class TableRefused extends Error {
  constructor(readonly problem: string) {
    super(problem);
  }
}

function refuseWide(row: number): never {
  throw new TableRefused(`row ${row} has more than ${MOST_COLUMNS.toLocaleString('en-GB')} cells`);
}

function refuseLong(row: number): never {
  throw new TableRefused(`row ${row} is longer than ${LONGEST_ROW.toLocaleString('en-GB')} characters`);
}

interface LowParser {
  parse(text: string, base: number, ignoreLastRow: boolean): Papa.ParseResult<string[]>;
}

/**
 * Rows of a text with separated cells (RFC 4180), a batch for each part of the text. What is well formed is only scanned. A
 * line with a quote where none belongs is named and read by itself, by a library that knows what people write, or with its
 * quotes as letters, whichever gives it the cells the table has; where neither does, as a row of several lines. A quote
 * that is never closed does not swallow what follows: it is named, and the reading goes on at the next line.
 * @throws {TableRefused} in the middle, when it turns out to be no table
 */
export async function* csvRows(
  text: AsyncIterable<string>,
  separator: string,
  faults: TableFault[],
): AsyncGenerator<TableRow[]> {
  const Parser = (Papa as unknown as { Parser: new (config: object) => LowParser }).Parser;
  const reader = new Parser({ delimiter: separator, newline: '\n', quoteChar: '"' });
  const plain = new Parser({ delimiter: separator, newline: '\n', quoteChar: '\u0000' });
  let rest = '';
  let row = 0;
  let unclosed = 0;
  const fault = (one: TableFault) => {
    if (faults.length < MOST_FAULTS) faults.push(one);
  };
  const note = (errors: Papa.ParseError[]) => {
    for (const { code, row: at = 0 } of errors)
      if (code === 'InvalidQuotes') fault({ row: row + at + 1, problem: 'a quote stands where none belongs' });
  };
  const done = (rows: TableRow[]): TableRow[] => {
    row += rows.length;
    if (row > MOST_ROWS) throw new TableRefused(`it has more than ${MOST_ROWS.toLocaleString('en-GB')} rows`);
    const isBlank = (one: TableRow) => one.length === 1 && one.at(0) === '';
    return rows.some(isBlank) ? rows.filter((one) => !isBlank(one)) : rows;
  };
  /** Cells of the first row; every other is thought to have as many. */
  let width = 0;
  const oddLine = (line: string, before: readonly TableRow[], blank: number): TableRow | null => {
    width ||= before[0]?.length ?? 0;
    const read = reader.parse(line, 0, false);
    const closed = read.data.length === 1 && !read.errors.some(({ code }) => code === 'MissingQuotes');
    const cells = closed ? read.data[0]! : plain.parse(line, 0, false).data[0];
    if (!cells || cells.length > MOST_COLUMNS || (!closed && width > 0 && cells.length !== width)) return null;
    fault({ row: row + before.length + blank + 1, problem: 'a quote stands where none belongs' });
    return new ArrayRow(cells);
  };
  const parsed = (rows: string[][]): TableRow[] => {
    const wide = rows.findIndex((cells) => cells.length > MOST_COLUMNS);
    if (wide >= 0) refuseWide(row + wide + 1);
    return done(rows.map((cells) => new ArrayRow(cells)));
  };
  /** The first line of the rest, its quotes taken as letters. */
  const plainLine = (): string[][] => {
    fault({ row: row + 1, problem: 'a quote is opened and never closed' });
    if (++unclosed > MOST_UNCLOSED) throw new TableRefused('too many quotes in it are opened and never closed');
    const end = rest.indexOf('\n');
    const line = end < 0 ? rest : rest.slice(0, end);
    rest = end < 0 ? '' : rest.slice(end + 1);
    return plain.parse(line, 0, false).data;
  };
  for await (const part of sliced(text)) {
    rest += part;
    for (;;) {
      const scanned = scanRows(rest, separator, MOST_COLUMNS, oddLine);
      width ||= scanned.rows[0]?.length ?? 0;
      if (scanned.wide) refuseWide(row + scanned.rows.length + 1);
      row += scanned.blank;
      rest = rest.slice(scanned.end);
      if (scanned.rows.length > 0) yield done(scanned.rows);
      if (!scanned.odd || rest.length < LONGEST_ODD) break;
      // A row of several lines that is not well formed.
      const read = reader.parse(rest.slice(0, LONGEST_ODD), 0, true);
      const rows = read.meta.cursor === 0 ? plainLine() : read.data;
      if (read.meta.cursor > 0) {
        note(read.errors);
        rest = rest.slice(read.meta.cursor);
      }
      yield parsed(rows);
      await setImmediate();
    }
    if (rest.length > LONGEST_ROW) {
      const end = rest.indexOf('\n');
      if (end < 0 || end > LONGEST_ROW) refuseLong(row + 1);
      yield parsed(plainLine());
    }
  }
  // The last row may lack its line end.
  const last = scanRows(`${rest}\n`, separator, MOST_COLUMNS, oddLine);
  if (last.wide) refuseWide(row + last.rows.length + 1);
  row += last.blank;
  rest = rest.slice(last.end);
  if (last.rows.length > 0) yield done(last.rows);
  while (rest !== '') {
    await setImmediate();
    const whole = reader.parse(rest, 0, true);
    note(whole.errors);
    const rows = parsed(whole.data);
    rest = rest.slice(whole.meta.cursor);
    const end = reader.parse(rest, 0, false);
    if (end.errors.some(({ code }) => code === 'MissingQuotes')) rows.push(...parsed(plainLine()));
    else {
      note(end.errors);
      rows.push(...parsed(end.data));
      rest = '';
    }
    if (rows.length > 0) yield rows;
  }
}

/** Parts that are not too long to be read at once; others have their turn between them. */
async function* sliced(text: AsyncIterable<string>): AsyncGenerator<string> {
  for await (const part of text)
    for (let at = 0; at < part.length; at += SLICE) {
      if (at > 0) await setImmediate();
      yield part.length <= SLICE ? part : part.slice(at, at + SLICE);
    }
}
