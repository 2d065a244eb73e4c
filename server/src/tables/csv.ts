import Papa from 'papaparse';
import { ArrayRow, type TableRow } from './row.ts';
import { scanRows } from './scan.ts';

/** A row that could not be read as it was meant, from 1. */
export interface TableFault {
  row: number;
  problem: string;
}

/** No row is longer than this; what is, is a quote that was never closed. */
const LONGEST_ROW = 1_000_000;

interface LowParser {
  parse(text: string, base: number, ignoreLastRow: boolean): Papa.ParseResult<string[]>;
}

/**
 * Rows of a text with separated cells (RFC 4180), a batch for each part of the text. What is well formed is only scanned;
 * from a row on that is not, the part is parsed by a library that knows what people write. A quote that is never closed
 * does not swallow what follows: it is named, and the reading goes on at the next line with the quote as a letter.
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
  const note = (errors: Papa.ParseError[]) => {
    for (const { code, row: at = 0 } of errors)
      if (code === 'InvalidQuotes') faults.push({ row: row + at + 1, problem: 'a quote stands where none belongs' });
  };
  const done = (rows: TableRow[]): TableRow[] => {
    row += rows.length;
    const isBlank = (one: TableRow) => one.length === 1 && one.at(0) === '';
    return rows.some(isBlank) ? rows.filter((one) => !isBlank(one)) : rows;
  };
  const parsed = (rows: string[][]): TableRow[] => done(rows.map((cells) => new ArrayRow(cells)));
  /** The first line of the rest, its quotes taken as letters. */
  const plainLine = (): string[][] => {
    faults.push({ row: row + 1, problem: 'a quote is opened and never closed' });
    const end = rest.indexOf('\n');
    const line = end < 0 ? rest : rest.slice(0, end);
    rest = end < 0 ? '' : rest.slice(end + 1);
    return plain.parse(line, 0, false).data;
  };
  for await (const part of text) {
    rest += part;
    const scanned = scanRows(rest, separator);
    const rows = done(scanned.rows);
    rest = rest.slice(scanned.end);
    if (scanned.odd) {
      const read = reader.parse(rest, 0, true);
      note(read.errors);
      rest = rest.slice(read.meta.cursor);
      rows.push(...parsed(read.data));
    }
    if (rest.length > LONGEST_ROW) rows.push(...parsed(plainLine()));
    if (rows.length > 0) yield rows;
  }
  while (rest !== '') {
    const whole = reader.parse(rest, 0, true);
    note(whole.errors);
    const rows = parsed(whole.data);
    rest = rest.slice(whole.meta.cursor);
    const last = reader.parse(rest, 0, false);
    if (last.errors.some(({ code }) => code === 'MissingQuotes')) rows.push(...parsed(plainLine()));
    else {
      note(last.errors);
      rows.push(...parsed(last.data));
      rest = '';
    }
    if (rows.length > 0) yield rows;
  }
}
