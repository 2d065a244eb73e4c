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
    if (cells * 2 + 2 > bounds.length) {
      const more = new Int32Array(bounds.length * 2);
      more.set(bounds);
      bounds = more;
    }
    let end: number;
    let next: number;
    const code = text.charCodeAt(i);
    // People leave a space before a quote; where the quote does not close, it was a letter.
    const opens = code === QUOTE ? i : code === SPACE ? quoteBehind(text, i + 1) : NONE;
    const closed = opens === NONE ? ODD : closingQuote(text, opens + 1, part);
    if (closed === UNFINISHED) break;
    if (opens === i && closed === ODD) {
      const line = text.indexOf('\n', rowAt);
      if (line < 0) break;
      const row = oddLine?.(text.slice(rowAt, line), rows, blank) ?? null;
      if (row === null) {
        odd = true;
        break;
      }
      rows.push(row);
      cells = firstOfRow;
      i = rowAt = line + 1;
      continue;
    }
    if (closed !== ODD) {
      end = closed < 0 ? ~closed : closed;
      next = end + 1;
      while (text.charCodeAt(next) === SPACE) next++;
      bounds[cells * 2] = opens + 1;
      bounds[cells * 2 + 1] = closed;
    } else {
      end = i;
      for (let sign = code; sign !== part && sign !== LINE && end < text.length; ) sign = text.charCodeAt(++end);
      next = end;
      bounds[cells * 2] = i;
      bounds[cells * 2 + 1] = end;
    }
    if (next >= text.length) break;
    cells++;
    i = next + 1;
    if (cells - firstOfRow > mostCells) {
      wide = true;
      break;
    }
    if (text.charCodeAt(next) !== LINE) continue;
    rows.push(new TextRow(of, firstOfRow, cells - firstOfRow));
    firstOfRow = cells;
    rowAt = i;
  }
  of.bounds = bounds;
  return { rows, end: rowAt, odd, wide, blank };
}

const UNFINISHED = Number.MAX_SAFE_INTEGER;
const ODD = Number.MIN_SAFE_INTEGER;
const NONE = -1;

/** Where a quote stands with nothing but spaces before it. */
function quoteBehind(text: string, from: number): number {
  let at = from;
  while (text.charCodeAt(at) === SPACE) at++;
  return text.charCodeAt(at) === QUOTE ? at : NONE;
}

/** Where a quoted cell ends, as ~end when it has doubled quotes; whether it goes on beyond the text, or ends oddly. */
function closingQuote(text: string, from: number, part: number): number {
  let doubled = false;
  for (let at = from; ; ) {
    const quote = text.indexOf('"', at);
    if (quote < 0 || quote + 1 >= text.length) return UNFINISHED;
    let after = text.charCodeAt(quote + 1);
    if (after === SPACE) {
      let behind = quote + 2;
      while (text.charCodeAt(behind) === SPACE) behind++;
      if (behind >= text.length) return UNFINISHED;
      after = text.charCodeAt(behind);
      if (after === QUOTE) return ODD;
    }
    if (after === part || after === LINE) return doubled ? ~quote : quote;
    if (after !== QUOTE) return ODD;
    doubled = true;
    at = quote + 2;
  }
}
