import { type ScannedText, TextRow } from './row.ts';

const QUOTE = 34;
const LINE = 10;

export interface Scanned {
  rows: TextRow[];
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
 */
export function scanRows(text: string, separator: string, mostCells = Number.POSITIVE_INFINITY): Scanned {
  const part = separator.charCodeAt(0);
  const rows: TextRow[] = [];
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
    if (text.charCodeAt(i) === QUOTE) {
      const closed = closingQuote(text, i + 1, part);
      if (closed === UNFINISHED) break;
      if (closed === ODD) {
        odd = true;
        break;
      }
      end = closed < 0 ? ~closed : closed;
      next = end + 1;
      bounds[cells * 2] = i + 1;
      bounds[cells * 2 + 1] = closed;
    } else {
      end = i;
      for (let code = text.charCodeAt(end); code !== part && code !== LINE && end < text.length; )
        code = text.charCodeAt(++end);
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

/** Where a quoted cell ends, as ~end when it has doubled quotes; whether it goes on beyond the text, or ends oddly. */
function closingQuote(text: string, from: number, part: number): number {
  let doubled = false;
  for (let at = from; ; ) {
    const quote = text.indexOf('"', at);
    if (quote < 0 || quote + 1 >= text.length) return UNFINISHED;
    const after = text.charCodeAt(quote + 1);
    if (after === part || after === LINE) return doubled ? ~quote : quote;
    if (after !== QUOTE) return ODD;
    doubled = true;
    at = quote + 2;
  }
}
