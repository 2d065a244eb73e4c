import { type ScannedText, type TableRow, TextRow } from './row.ts';

const SPACE = 32;
const QUOTE = 34;
const LINE = 10;

export interface Scanned {
  rows: TableRow[];
  /** Where the first row begins that was not read: it is not all there yet, or not written as it should be. */
  end: number;
  /** Whether it is not written as it should be. */
  odd: boolean;
  /** Whether the row after those read has more cells than it may. */
  wide: boolean;
  /** Lines with nothing in them; they are no rows. */
  blank: number;
}

/**
 * The rows of a text that are whole and well formed (RFC 4180), up to the first that is not. Nothing is copied: a row knows
 * where its cells are.
 * @param mostCells of a row
 * @param oddLine what a line says that is not well formed, with the rows before it; where there is none, the scan ends at it
 */
export function scanRows(
  text: string,
  separator: string,
  mostCells = Number.POSITIVE_INFINITY,
  oddLine?: (line: string, before: readonly TableRow[], blank: number) => TableRow | null,
): Scanned {
  const part = separator.charCodeAt(0);
  const rows: TableRow[] = [];
  let bounds = new Int32Array(Math.max(64, text.length >> 2));
  const of: ScannedText = { text, bounds };
  let cells = 0;
  let rowAt = 0;
  let firstOfRow = 0;
  let odd = false;
  let wide = false;
  let blank = 0;
  for (let i = 0; i < text.length; ) {
    if (i === rowAt && text.charCodeAt(i) === LINE) {
      rowAt = ++i;
      blank++;
      continue;
    }
    if (cells * 2 + 2 > bounds.length) bounds = grown(bounds);
    const next = readCell(text, i, part, bounds, cells * 2);
    if (next === UNFINISHED || next >= text.length) break;
    if (next === ODD) {
      const line = text.indexOf('\n', rowAt);
      if (line < 0) break;
      const row = oddLine?.(text.slice(rowAt, line), rows, blank) ?? null;
      odd = row === null;
      if (row === null) break;
      rows.push(row);
      cells = firstOfRow;
      i = rowAt = line + 1;
      continue;
    }
    cells++;
    i = next + 1;
    wide = cells - firstOfRow > mostCells;
    if (wide) break;
    if (text.charCodeAt(next) !== LINE) continue;
    rows.push(new TextRow(of, firstOfRow, cells - firstOfRow));
    firstOfRow = cells;
    rowAt = i;
  }
  of.bounds = bounds;
  return { rows, end: rowAt, odd, wide, blank };
}

function grown(bounds: Int32Array<ArrayBuffer>): Int32Array<ArrayBuffer> {
  const more = new Int32Array(bounds.length * 2);
  more.set(bounds);
  return more;
}

const UNFINISHED = -1;
const ODD = -2;
const NONE = -3;

/** Writes where a cell begins and ends, as ~end when it has doubled quotes; tells where the sign behind it stands. */
function readCell(text: string, from: number, part: number, bounds: Int32Array, at: number): number {
  const code = text.charCodeAt(from);
  // People leave a space before a quote; where the quote does not close, it was a letter.
  const opens = code === QUOTE ? from : code === SPACE ? quoteBehind(text, from + 1) : NONE;
  if (opens !== NONE) {
    const next = readQuoted(text, opens + 1, part, bounds, at);
    if (next !== ODD || opens === from) return next;
  }
  let end = from;
  for (let sign = code; sign !== part && sign !== LINE && end < text.length; ) sign = text.charCodeAt(++end);
  bounds[at] = from;
  bounds[at + 1] = end;
  return end;
}

/** Where a quote stands with nothing but spaces before it. */
function quoteBehind(text: string, from: number): number {
  let at = from;
  while (text.charCodeAt(at) === SPACE) at++;
  return text.charCodeAt(at) === QUOTE ? at : NONE;
}

/** The same of a quoted cell; whether it goes on beyond the text, or ends oddly. */
function readQuoted(text: string, from: number, part: number, bounds: Int32Array, cell: number): number {
  let doubled = false;
  for (let at = from; ; ) {
    const quote = text.indexOf('"', at);
    if (quote < 0 || quote + 1 >= text.length) return UNFINISHED;
    let behind = quote + 1;
    while (text.charCodeAt(behind) === SPACE) behind++;
    if (behind >= text.length) return UNFINISHED;
    const after = text.charCodeAt(behind);
    if (after === part || after === LINE) {
      bounds[cell] = from;
      bounds[cell + 1] = doubled ? ~quote : quote;
      return behind;
    }
    if (after !== QUOTE || behind > quote + 1) return ODD;
    doubled = true;
    at = quote + 2;
  }
}
