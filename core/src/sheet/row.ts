import { isPlain, readCell } from './cell.ts';
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

/** The cells of a row, from 0; an array of them, or what makes one when it is asked for it. */
export interface Cells {
  readonly length: number;
  at(i: number): string | undefined;
}

export interface ReadRow {
  /** What tells the row from others of the sheet; null when that is not filled in. */
  apart: string | null;
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
  read: (cells: Cells) => ReadRow;
  /** What it is known by for ever, by the cells that tell rows apart or by all of them. */
  identityOf: (cells: Cells) => string;
  /** What it brings along; made only of rows that are kept, since of a million most are known already. */
  fieldsOf: (cells: Cells) => RowFields;
}

const MOST_CELL = 20_000;
const MOST_SUBJECT = 300;

const NO_FAULTS: readonly RowFault[] = [];

/** A cell, no longer than one may be. */
function cellOf(cells: Cells, i: number): string {
  const whole = cells.at(i) ?? '';
  return whole.length > MOST_CELL ? whole.slice(0, MOST_CELL) : whole;
}

/** Makes the reader of a sheet's rows; what is the same for all rows is worked out once. */
export function rowReader({ columns, title, identity }: RowReading): RowReader {
  const titled = columns.findIndex(({ header }) => header === title);
  const telling = identity
    .map((header) => columns.findIndex((column) => column.header === header))
    .filter((i) => i >= 0);
  // What only tells rows apart, is the title already, or was left out, is nothing to write from.
  const told = columns.map(({ header, field }, i) => field !== null && i !== titled && !identity.includes(header));
  const typed = columns.flatMap(({ field, type }, i) => (field !== null && type !== 'text' ? [i] : []));
  const tellingCells = (cells: Cells) =>
    (telling.length === 0 ? [...Array(cells.length).keys()] : telling).map((i) => (cells.at(i) ?? '').trim());
  const isFigure = columns.map(({ type }) => type === 'number');
  const apartBy = (cells: Cells): string | null => {
    if (telling.length === 1) return (cells.at(telling[0]!) ?? '').trim() || null;
    const parts = tellingCells(cells);
    return telling.length > 0 && parts.includes('') ? null : parts.join('\u001f');
  };
  const faultsOf = (cells: Cells, subject: string, apart: string | null): RowFault[] => {
    const faults = typed.flatMap((i): RowFault[] => {
      const read = readCell(columns[i]!.type, cellOf(cells, i));
      if (read.ok) return [];
      return [{ header: columns[i]!.header, problem: read.problem, reads: read.reads, grave: true }];
    });
    const missing = (header: string, problem: string) => faults.push({ header, problem, reads: null, grave: true });
    if (subject === '') missing(columns[titled]?.header ?? 'title', 'no title');
    const nothing = apart === null ? telling.find((i) => (cells.at(i) ?? '').trim() === '') : undefined;
    if (nothing !== undefined) missing(columns[nothing]!.header, 'nothing tells this row apart');
    return faults;
  };
  /** What most cells are is told without anything made for it. */
  const isWell = (cells: Cells) => {
    for (const i of typed) {
      const cell = cells.at(i) ?? '';
      if (isFigure[i]! ? !isPlain(cell) : !readCell(columns[i]!.type, cellOf(cells, i)).ok) return false;
    }
    return true;
  };
  return {
    identityOf: (cells) => JSON.stringify(tellingCells(cells)),
    read(cells) {
      const subject = evened((titled < 0 ? '' : cells.at(titled)) ?? '');
      const apart = apartBy(cells);
      const well = subject !== '' && apart !== null && isWell(cells);
      return { apart, subject, faults: well ? NO_FAULTS : faultsOf(cells, subject, apart) };
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
  const even = (/\s{2}|[\t\n\r]/.test(short) ? short.replace(/\s+/g, ' ') : short).trim();
  return even.length > MOST_SUBJECT ? even.slice(0, MOST_SUBJECT) : even;
}
