import { type CellObject, read, utils, type WorkSheet } from '@e965/xlsx';
import { MOST_COLUMNS, type TableFault } from './csv.ts';

export const MOST_WORKBOOK_ROWS = 100_000;
const PART = 1_000;

/** First what tables a workbook has, then rows of one of them, and what of it is not read. */
export type WorkbookPart = { tables: string[] } | { rows: string[][] } | { fault: TableFault };

/** Digits a workbook keeps of a figure; those behind come of counting in twos. */
const DIGITS = 15;

/** A cell as text: days and times as ISO, figures without the noise of rounding, what a formula came to. */
function textOf(cell: CellObject | undefined): string {
  if (cell === undefined || cell.v === undefined || cell.v === null || cell.t === 'e') return '';
  if (cell.v instanceof Date) return timeOf(cell.v);
  return String(typeof cell.v === 'number' ? Number(cell.v.toPrecision(DIGITS)) : cell.v);
}

/** A time of day without a day is kept as one of the last days of 1899. */
const DAY_NONE = /^1899-12-3[01]T/;

function timeOf(moment: Date): string {
  // Times are kept as parts of a day: the nearest whole second is meant.
  const iso = new Date(Math.round(moment.getTime() / 1_000) * 1_000).toISOString().slice(0, 19);
  const time = iso.endsWith(':00') ? iso.slice(11, 16) : iso.slice(11);
  if (DAY_NONE.test(iso)) return time;
  return time === '00:00' ? iso.slice(0, 10) : `${iso.slice(0, 10)} ${time}`;
}

/** Whether anything stands in a sheet at or beyond a column. */
function isFilledBeyond(sheet: WorkSheet, column: number): boolean {
  return Object.entries(sheet).some(
    ([at, cell]) => !at.startsWith('!') && utils.decode_cell(at).c >= column && textOf(cell as CellObject) !== '',
  );
}

/**
 * Reads one table of an XLSX or ODS file: formulas as what they came to, days as ISO, merged cells filled.
 * @param table its name, null for the first that is not hidden
 */
export function* readWorkbook(bytes: Uint8Array, table: string | null): Generator<WorkbookPart> {
  const book = read(bytes, {
    type: 'buffer',
    cellDates: true,
    UTC: true,
    dense: false,
    sheetRows: MOST_WORKBOOK_ROWS + 1,
  });
  yield { tables: book.SheetNames };
  const shown = book.SheetNames.find((_, i) => !book.Workbook?.Sheets?.[i]?.Hidden) ?? book.SheetNames[0];
  const name = table !== null && book.SheetNames.includes(table) ? table : shown;
  const sheet: WorkSheet | undefined = name === undefined ? undefined : book.Sheets[name];
  if (!sheet?.['!ref']) return;
  const area = utils.decode_range(sheet['!ref']);
  const widest = Math.min(area.e.c, MOST_COLUMNS - 1);
  const deepest = Math.min(area.e.r, MOST_WORKBOOK_ROWS - 1);
  if (area.e.c > widest && isFilledBeyond(sheet, MOST_COLUMNS))
    yield { fault: { row: 1, problem: `columns beyond the ${MOST_COLUMNS.toLocaleString('en-GB')}th are not read` } };
  if (area.e.r > deepest)
    yield {
      fault: {
        row: MOST_WORKBOOK_ROWS,
        problem: `rows beyond the ${MOST_WORKBOOK_ROWS.toLocaleString('en-GB')}th are not read; save it as CSV instead`,
      },
    };
  // A merged area says the same in every cell of it; one larger than any table is a mistake or a trap.
  const merged = new Map<string, { r: number; c: number }>();
  for (const { s, e } of sheet['!merges'] ?? [])
    for (let r = s.r; r <= Math.min(e.r, deepest) && merged.size < MOST_MERGED; r++)
      for (let c = s.c; c <= Math.min(e.c, widest); c++) merged.set(`${r}:${c}`, s);
  let rows: string[][] = [];
  for (let r = 0; r <= deepest; r++) {
    const cells: string[] = [];
    for (let c = 0; c <= widest; c++)
      cells.push(textOf(sheet[utils.encode_cell(merged.get(`${r}:${c}`) ?? { r, c })] as CellObject | undefined));
    rows.push(cells);
    if (rows.length < PART) continue;
    yield { rows };
    rows = [];
  }
  if (rows.length > 0) yield { rows };
}

const MOST_MERGED = 200_000;
