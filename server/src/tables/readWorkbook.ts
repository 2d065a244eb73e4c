import { type CellObject, read, utils, type WorkSheet } from '@e965/xlsx';
import { MOST_COLUMNS } from './csv.ts';

export const MOST_WORKBOOK_ROWS = 100_000;
const PART = 1_000;

/** First what tables a workbook has, then rows of one of them. */
export type WorkbookPart = { tables: string[] } | { rows: string[][] };

/** A cell as text: days as ISO, figures as they are, what a formula came to. */
function textOf(cell: CellObject | undefined): string {
  if (cell === undefined || cell.v === undefined || cell.v === null || cell.t === 'e') return '';
  if (cell.v instanceof Date) {
    const iso = cell.v.toISOString();
    return iso.endsWith('T00:00:00.000Z') ? iso.slice(0, 10) : iso.slice(0, 16).replace('T', ' ');
  }
  return String(cell.v);
}

/**
 * Reads one table of an XLSX or ODS file: formulas as what they came to, days as ISO, merged cells filled.
 * @param table its name, null for the first
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
  const name = table !== null && book.SheetNames.includes(table) ? table : book.SheetNames[0];
  const sheet: WorkSheet | undefined = name === undefined ? undefined : book.Sheets[name];
  if (!sheet?.['!ref']) return;
  const area = utils.decode_range(sheet['!ref']);
  const widest = Math.min(area.e.c, MOST_COLUMNS - 1);
  const deepest = Math.min(area.e.r, MOST_WORKBOOK_ROWS - 1);
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
