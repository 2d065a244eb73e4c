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
  const table = new CsvTable(separator, faults);
  for await (const part of sliced(text)) yield* table.more(part);
  yield* table.end();
}

/** A table as far as it is read: what has come and is no row yet, and where in it the reading is. */
class CsvTable {
  private readonly reader: LowParser;
  private readonly plain: LowParser;
  private rest = '';
  private row = 0;
  private unclosed = 0;
  /** Cells of the first row; every other is thought to have as many. */
  private width = 0;

  constructor(
    private readonly separator: string,
    private readonly faults: TableFault[],
  ) {
    const Parser = (Papa as unknown as { Parser: new (config: object) => LowParser }).Parser;
    this.reader = new Parser({ delimiter: separator, newline: '\n', quoteChar: '"' });
    this.plain = new Parser({ delimiter: separator, newline: '\n', quoteChar: '\u0000' });
  }

  /** The rows that are whole with this part. */
  async *more(part: string): AsyncGenerator<TableRow[]> {
    this.rest += part;
    for (;;) {
      const { rows, odd } = this.scan();
      if (rows.length > 0) yield this.done(rows);
      if (!odd || this.rest.length < LONGEST_ODD) break;
      yield this.oddRows();
      await setImmediate();
    }
    if (this.rest.length > LONGEST_ROW) {
      const end = this.rest.indexOf('\n');
      if (end < 0 || end > LONGEST_ROW) refuseLong(this.row + 1);
      yield this.parsed(this.plainLine());
    }
  }

  /** What is left when nothing more comes: the last row may lack its line end. */
  async *end(): AsyncGenerator<TableRow[]> {
    this.rest += '\n';
    const { rows } = this.scan();
    this.rest = this.rest.slice(0, -1);
    if (rows.length > 0) yield this.done(rows);
    while (this.rest !== '') {
      await setImmediate();
      const whole = this.reader.parse(this.rest, 0, true);
      this.note(whole.errors);
      const read = this.parsed(whole.data);
      this.rest = this.rest.slice(whole.meta.cursor);
      const end = this.reader.parse(this.rest, 0, false);
      if (end.errors.some(({ code }) => code === 'MissingQuotes')) read.push(...this.parsed(this.plainLine()));
      else {
        this.note(end.errors);
        read.push(...this.parsed(end.data));
        this.rest = '';
      }
      if (read.length > 0) yield read;
    }
  }

  /** The rows the rest begins with that are well formed. */
  private scan() {
    const scanned = scanRows(this.rest, this.separator, MOST_COLUMNS, this.oddLine);
    this.width ||= scanned.rows[0]?.length ?? 0;
    if (scanned.wide) refuseWide(this.row + scanned.rows.length + 1);
    this.row += scanned.blank;
    this.rest = this.rest.slice(scanned.end);
    return scanned;
  }

  /** A row of several lines that is not well formed. */
  private oddRows(): TableRow[] {
    const read = this.reader.parse(this.rest.slice(0, LONGEST_ODD), 0, true);
    if (read.meta.cursor === 0) return this.parsed(this.plainLine());
    this.note(read.errors);
    this.rest = this.rest.slice(read.meta.cursor);
    return this.parsed(read.data);
  }

  private readonly oddLine = (line: string, before: readonly TableRow[], blank: number): TableRow | null => {
    this.width ||= before[0]?.length ?? 0;
    const read = this.reader.parse(line, 0, false);
    const closed = read.data.length === 1 && !read.errors.some(({ code }) => code === 'MissingQuotes');
    const cells = closed ? read.data[0]! : this.plain.parse(line, 0, false).data[0];
    if (!cells || cells.length > MOST_COLUMNS || (!closed && this.width > 0 && cells.length !== this.width))
      return null;
    this.fault(this.row + before.length + blank + 1, 'a quote stands where none belongs');
    return new ArrayRow(cells);
  };

  /** The first line of the rest, its quotes taken as letters. */
  private plainLine(): string[][] {
    this.fault(this.row + 1, 'a quote is opened and never closed');
    if (++this.unclosed > MOST_UNCLOSED) throw new TableRefused('too many quotes in it are opened and never closed');
    const end = this.rest.indexOf('\n');
    const line = end < 0 ? this.rest : this.rest.slice(0, end);
    this.rest = end < 0 ? '' : this.rest.slice(end + 1);
    return this.plain.parse(line, 0, false).data;
  }

  private parsed(rows: string[][]): TableRow[] {
    const wide = rows.findIndex((cells) => cells.length > MOST_COLUMNS);
    if (wide >= 0) refuseWide(this.row + wide + 1);
    return this.done(rows.map((cells) => new ArrayRow(cells)));
  }

  private done(rows: TableRow[]): TableRow[] {
    this.row += rows.length;
    if (this.row > MOST_ROWS) throw new TableRefused(`it has more than ${MOST_ROWS.toLocaleString('en-GB')} rows`);
    const isBlank = (one: TableRow) => one.length === 1 && one.at(0) === '';
    return rows.some(isBlank) ? rows.filter((one) => !isBlank(one)) : rows;
  }

  private note(errors: Papa.ParseError[]): void {
    for (const { code, row: at = 0 } of errors)
      if (code === 'InvalidQuotes') this.fault(this.row + at + 1, 'a quote stands where none belongs');
  }

  private fault(row: number, problem: string): void {
    if (this.faults.length < MOST_FAULTS) this.faults.push({ row, problem });
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
