import { readCell } from './cell.ts';
import type { SheetColumn } from './guess.ts';

/** How rows become items. */
export interface RowReading {
  columns: readonly SheetColumn[];
  title: string | null;
  identity: readonly string[];
}

/** What is wrong at one cell, and what mends it. */
export interface RowFault {
  header: string;
  problem: string;
  /** What the cell may have been meant to say. */
  reads: string | null;
  /** Whether the row can be used all the same, without the cell. */
  grave: boolean;
}

export interface ReadRow {
  /** What tells the row from others; null when that is not filled in. */
  identity: string | null;
  subject: string;
  fields: Record<string, string | number | boolean | null>;
  /** Every cell under its header, as it stands. */
  row: Record<string, string>;
  faults: RowFault[];
}

const MOST_CELL = 20_000;
const MOST_SUBJECT = 300;

/** Makes the reader of a sheet's rows; what is the same for all rows is worked out once. */
export function rowReader({ columns, title, identity }: RowReading): (cells: readonly string[]) => ReadRow {
  const titled = columns.findIndex(({ header }) => header === title);
  const telling = identity
    .map((header) => columns.findIndex((column) => column.header === header))
    .filter((i) => i >= 0);
  return (cells) => {
    const faults: RowFault[] = [];
    const fields: ReadRow['fields'] = {};
    const row: ReadRow['row'] = {};
    for (let i = 0; i < columns.length; i++) {
      const { header, field, type } = columns[i]!;
      const raw = (cells[i] ?? '').slice(0, MOST_CELL);
      row[header] = raw.trim();
      if (field === null) continue;
      const read = readCell(type, raw);
      if (read.ok) fields[field] = read.value;
      else {
        fields[field] = null;
        faults.push({ header, problem: read.problem, reads: read.reads, grave: true });
      }
    }
    const subject = (cells[titled] ?? '').replace(/\s+/g, ' ').trim().slice(0, MOST_SUBJECT);
    if (subject === '')
      faults.push({ header: columns[titled]?.header ?? 'title', problem: 'no title', reads: null, grave: true });
    const parts = telling.map((i) => (cells[i] ?? '').trim());
    const known = telling.length > 0 && parts.every((part) => part !== '');
    if (telling.length > 0 && !known)
      faults.push({
        header: columns[telling[parts.indexOf('')]!]!.header,
        problem: 'nothing tells this row apart',
        reads: null,
        grave: true,
      });
    return {
      // Without a column that tells rows apart, all of the row does.
      identity:
        telling.length === 0 ? JSON.stringify(cells.map((cell) => cell.trim())) : known ? JSON.stringify(parts) : null,
      subject,
      fields,
      row,
      faults,
    };
  };
}
