import { CELL_TYPES, type CellType, readCell } from './cell.ts';
import { RESERVED_FIELDS } from './reserved.ts';

export const SEPARATORS = [',', ';', '\t', '|'] as const;
export type Separator = (typeof SEPARATORS)[number];

/** Rows a guess is made from. */
const LOOKED_AT = 40;

/** The separator that parts the first lines into the same number of cells most evenly; a comma when none does. */
export function guessSeparator(text: string): Separator {
  const lines = text
    .slice(0, 40_000)
    .split(/\r\n|\r|\n/)
    .filter((line) => line.trim() !== '')
    .slice(0, LOOKED_AT)
    .map((line) => line.replace(/"(?:[^"]|"")*"/g, '""'));
  let best: { separator: Separator; worth: number } = { separator: ',', worth: 0 };
  for (const separator of SEPARATORS) {
    const counts = new Map<number, number>();
    for (const line of lines) {
      const n = line.split(separator).length;
      if (n > 1) counts.set(n, (counts.get(n) ?? 0) + 1);
    }
    for (const [n, times] of counts) {
      const worth = times * Math.log(n + 1);
      if (worth > best.worth) best = { separator, worth };
    }
  }
  return best.separator;
}

/**
 * The row that names the columns, from 0; null when none does. It is the first of the widest rows whose cells are all
 * filled, differ and are no figures, while below it some are.
 */
export function guessHeader(rows: readonly (readonly string[])[]): number | null {
  const seen = rows.slice(0, LOOKED_AT);
  const width = Math.max(0, ...seen.map((row) => filled(row)));
  if (width === 0) return null;
  for (const [at, row] of seen.entries()) {
    if (filled(row) < Math.max(1, width - 1)) continue;
    const cells = row.map((cell) => cell.trim()).filter((cell) => cell !== '');
    const names = new Set(cells.map((cell) => cell.toLowerCase())).size === cells.length && cells.every(isName);
    return names && at < seen.length - 1 ? at : null;
  }
  return null;
}

function filled(row: readonly string[]): number {
  return row.filter((cell) => cell.trim() !== '').length;
}

function isName(cell: string): boolean {
  return cell.length <= 60 && /\p{L}/u.test(cell) && !readsAs(cell, 'day') && !readsAs(cell, 'address');
}

function readsAs(cell: string, type: CellType): boolean {
  return readCell(type, cell).ok;
}

/** A column as it is read: what it is called in the sheet, the field it becomes, and what its cells are. */
export interface SheetColumn {
  header: string;
  /** Null leaves the column out. */
  field: string | null;
  type: CellType;
}

export interface GuessedSheet {
  /** Row of the header from 1, null when there is none. */
  header: number | null;
  columns: SheetColumn[];
  /** Headers of the columns that tell rows apart; empty when none does. */
  identity: string[];
  title: string | null;
}

/** What a sheet seems to be, from its first rows; every part of it can be changed by a person. */
export function guessSheet(rows: readonly (readonly string[])[]): GuessedSheet {
  const header = guessHeader(rows);
  return guessBelow(rows, header === null ? null : header + 1);
}

/** The same when a person has said which row names the columns, from 1; null says that none does. */
export function guessBelow(rows: readonly (readonly string[])[], header: number | null): GuessedSheet {
  const width = Math.max(0, ...rows.slice(0, LOOKED_AT).map((row) => row.length));
  const names = headersOf(header === null ? [] : (rows[header - 1] ?? []), width);
  const body = rows.slice(header ?? 0, (header ?? 0) + LOOKED_AT).filter((row) => filled(row) > 0);
  const fields = new Set<string>();
  const columns = names.map(
    (name, i): SheetColumn => ({
      header: name,
      field: fieldFor(name, fields),
      type: guessType(body.map((row) => row[i] ?? '')),
    }),
  );
  const cells = (i: number) => body.map((row) => (row[i] ?? '').trim());
  const unique = columns.flatMap((_, i) => {
    const values = cells(i);
    // One or two that are not so may be slips, and are shown as such.
    const apart = new Set(values.filter((value) => value !== '')).size;
    return values.length > 0 && apart >= values.length * 0.94 ? [i] : [];
  });
  const titled = columns.findIndex(
    ({ header, type }) => type === 'text' && /^(?:name|title|titel|subject|thema|product|keyword|phrase)/i.test(header),
  );
  const title = titled >= 0 ? titled : titleLike(columns, cells);
  const identity =
    unique.find((i) => /\b(?:sku|id|key|number|nr|no|code|ean|isbn|address|url|link)\b/i.test(columns[i]!.header)) ??
    unique.find((i) => i !== title && columns[i]!.type !== 'number' && columns[i]!.type !== 'day') ??
    (unique.includes(title) ? title : undefined);
  return {
    header,
    columns,
    identity: identity === undefined ? [] : [columns[identity]!.header],
    title: columns[title]?.header ?? null,
  };
}

/** Names for all columns: those of the header, and 'column C' where it has none; repeats are numbered. */
export function headersOf(row: readonly string[], width: number): string[] {
  const used = new Map<string, number>();
  return Array.from({ length: Math.max(width, row.length) }, (_, i) => {
    const name = (row[i] ?? '').replace(/\s+/g, ' ').trim().slice(0, 80) || `column ${letters(i)}`;
    const times = (used.get(name.toLowerCase()) ?? 0) + 1;
    used.set(name.toLowerCase(), times);
    return times === 1 ? name : `${name} ${times}`;
  });
}

/** Letters of a column as spreadsheets have them: A, Z, AA. */
export function letters(column: number): string {
  const rest = Math.floor(column / 26);
  return `${rest > 0 ? letters(rest - 1) : ''}${String.fromCharCode(65 + (column % 26))}`;
}

/** The field a column becomes: its name as one word, numbered when two are alike. */
function fieldFor(header: string, used: Set<string>): string {
  const words = header
    .normalize('NFKD')
    .replace(/\p{M}+/gu, '')
    .match(/[A-Za-z0-9]+/g) ?? ['column'];
  const joined = words
    .map((word, i) => (i === 0 ? word.toLowerCase() : word[0]!.toUpperCase() + word.slice(1).toLowerCase()))
    .join('');
  const word = (/^[a-z]/.test(joined) ? joined : `column${joined}`).slice(0, 33);
  const base = RESERVED_FIELDS.has(word) ? `row${word[0]!.toUpperCase()}${word.slice(1)}` : word;
  let name = base;
  for (let n = 2; used.has(name); n++) name = `${base}${n}`;
  used.add(name);
  return name;
}

function guessType(cells: readonly string[]): CellType {
  const some = cells.filter((cell) => cell.trim() !== '');
  if (some.length === 0) return 'text';
  // A slip or two does not make a column of figures one of texts.
  const fits = (type: CellType) => some.filter((cell) => readsAs(cell, type)).length >= some.length * 0.85;
  return (
    CELL_TYPES.find(
      (type) =>
        type !== 'text' && (type !== 'yes or no' || !some.every((cell) => /^[01]$/.test(cell.trim()))) && fits(type),
    ) ?? 'text'
  );
}

/** Letters a title has at most, on the whole. */
const LONGEST_TITLE = 60;

/**
 * The first column whose cells could be titles: words rather than codes, and no sentences; people put what a row is of
 * before what is said of it. Else the one with the longest texts.
 */
function titleLike(columns: readonly SheetColumn[], cells: (i: number) => string[]): number {
  const texts = columns.flatMap(({ type }, i) => {
    if (type !== 'text') return [];
    const values = cells(i).filter((value) => value !== '');
    const mean = values.reduce((sum, value) => sum + value.length, 0) / Math.max(1, values.length);
    const apart = new Set(values).size >= values.length * 0.8;
    const words = values.filter((value) => /\p{L}{3}/u.test(value) && (/\s/.test(value) || !/\d/.test(value))).length;
    return [{ i, mean, fits: values.length > 0 && apart && mean <= LONGEST_TITLE && words >= values.length * 0.7 }];
  });
  const [longest] = [...texts].sort((a, b) => (a.mean > 90 ? 0 : -a.mean) - (b.mean > 90 ? 0 : -b.mean));
  return (texts.find(({ fits }) => fits) ?? longest)?.i ?? 0;
}
