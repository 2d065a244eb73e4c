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
  faults: readonly RowFault[];
}

/** What a brief of a row brings along. */
export interface RowFields {
  fields: Record<string, string | number | boolean | null>;
  /** Cells there is something to write from, under their headers, as they stand. */
  row: Record<string, string>;
}

export interface RowReader {
  /** What a row is, and what is wrong in it. */
  read: (cells: readonly string[]) => ReadRow;
  /** What it brings along; made only of rows that are kept, since of a million most are known already. */
  fieldsOf: (cells: readonly string[]) => RowFields;
}

const MOST_CELL = 20_000;
const MOST_SUBJECT = 300;

const NO_FAULTS: readonly RowFault[] = [];

/** Makes the reader of a sheet's rows; what is the same for all rows is worked out once. */
export function rowReader({ columns, title, identity }: RowReading): RowReader {
  const titled = columns.findIndex(({ header }) => header === title);
  const telling = identity
    .map((header) => columns.findIndex((column) => column.header === header))
    .filter((i) => i >= 0);
  // What only tells rows apart, is the title already, or was left out, is nothing to write from.
  const told = columns.map(({ header, field }, i) => field !== null && i !== titled && !identity.includes(header));
  const typed = columns.flatMap(({ field, type }, i) => (field !== null && type !== 'text' ? [i] : []));
  const cellOf = (cells: readonly string[], i: number) => {
    const whole = cells[i] ?? '';
    return whole.length > MOST_CELL ? whole.slice(0, MOST_CELL) : whole;
  };
  return {
    read(cells) {
      let faults: RowFault[] | null = null;
      for (const i of typed) {
        const read = readCell(columns[i]!.type, cellOf(cells, i));
        if (read.ok) continue;
        faults ??= [];
        faults.push({ header: columns[i]!.header, problem: read.problem, reads: read.reads, grave: true });
      }
      const subject = evened(cells[titled] ?? '');
      if (subject === '') {
        faults ??= [];
        faults.push({ header: columns[titled]?.header ?? 'title', problem: 'no title', reads: null, grave: true });
      }
      let known: string | null = null;
      if (telling.length === 0) known = JSON.stringify(cells.map((cell) => cell.trim()));
      else {
        const parts = telling.map((i) => (cells[i] ?? '').trim());
        const missing = parts.indexOf('');
        if (missing < 0) known = JSON.stringify(parts);
        else {
          faults ??= [];
          faults.push({
            header: columns[telling[missing]!]!.header,
            problem: 'nothing tells this row apart',
            reads: null,
            grave: true,
          });
        }
      }
      return { identity: known, subject, faults: faults ?? NO_FAULTS };
    },
    fieldsOf(cells) {
      const fields: RowFields['fields'] = {};
      const row: RowFields['row'] = {};
      for (const [i, { header, field, type }] of columns.entries()) {
        if (field === null) continue;
        const raw = cellOf(cells, i);
        if (told[i]) row[header] = raw.trim();
        const read = readCell(type, raw);
        fields[field] = read.ok ? read.value : null;
      }
      return { fields, row };
    },
  };
}

function evened(text: string): string {
  const short = text.length > 4_000 ? text.slice(0, 4_000) : text;
  return (/\s{2}|[\t\n\r]/.test(short) ? short.replace(/\s+/g, ' ') : short).trim().slice(0, MOST_SUBJECT);
}
