import LineBreaker from 'linebreak';
import { mirrored, orderOf } from '../type/order.ts';

/** A piece of a text that looks one way. */
export interface Piece<Ink> {
  text: string;
  ink: Ink;
}

/** A piece of a line at its place from the left. */
export interface SetPiece<Ink> extends Piece<Ink> {
  fromRight: boolean;
}

/** Letters of scripts that run from the right. */
export const FROM_RIGHT = /[\p{sc=Arab}\p{sc=Hebr}\p{sc=Syrc}\p{sc=Thaa}\p{sc=Nkoo}]/u;

/**
 * Breaks a text into lines no wider than there is room, where its script may be broken, each with its pieces in the order they stand from left
 * to right (Unicode Standard Annex 9: lines are broken in the order they are read, then each is put in order). A word that
 * is wider than the room is broken between letters.
 * @param measure how wide a piece is, in the unit of `room`
 */
export function linesOf<Ink>(
  pieces: readonly Piece<Ink>[],
  room: number,
  fromRight: boolean,
  measure: (piece: Piece<Ink>) => number,
): SetPiece<Ink>[][] {
  const text = pieces.map((piece) => piece.text).join('');
  const owner = pieces.flatMap((piece, n) => Array.from({ length: piece.text.length }, () => n));
  const inkedIn = (from: number, to: number): Piece<Ink>[] => {
    const out: (Piece<Ink> & { n: number })[] = [];
    for (let at = from; at < to; at++) {
      const last = out.at(-1);
      if (last && last.n === owner[at]) last.text += text[at]!;
      else out.push({ text: text[at]!, ink: pieces[owner[at]!]!.ink, n: owner[at]! });
    }
    return out.map(({ n: _, ...piece }) => piece);
  };
  const widthOf = (from: number, to: number) => inkedIn(from, to).reduce((sum, piece) => sum + measure(piece), 0);
  const ends = breaksOf(text, room, widthOf);
  return ends.map((to, i) => {
    const start = ends[i - 1] ?? 0;
    const from = start + (/^\s*/.exec(text.slice(start, to))?.[0].length ?? 0);
    const line = text.slice(from, to).trimEnd();
    return orderOf(line, fromRight).flatMap(({ from: a, to: b, level }) => {
      const right = level % 2 === 1;
      const inked = inkedIn(from + a, from + b).map((piece) => ({
        ...piece,
        text: right ? mirrored(piece.text) : piece.text,
        fromRight: right,
      }));
      return right ? inked.reverse() : inked;
    });
  });
}

/** Pieces of a text between which a line may end, the spaces behind each with it (Unicode Standard Annex 14). */
function* between(text: string): Generator<{ from: number; to: number }> {
  const breaker = new LineBreaker(text);
  let from = 0;
  for (let at = breaker.nextBreak(); at; at = breaker.nextBreak()) {
    if (at.position > from) yield { from, to: at.position };
    from = at.position;
  }
}

/** Where lines end. */
function breaksOf(text: string, room: number, widthOf: (from: number, to: number) => number): number[] {
  const ends: number[] = [];
  let width = 0;
  for (const { from: start, to } of between(text)) {
    // Spaces at the end of a line take no room.
    const last = start + text.slice(start, to).trimEnd().length;
    const own = widthOf(start, last);
    if (width > 0 && width + own > room) {
      ends.push(start);
      width = 0;
    }
    let from = start;
    // One piece that is wider than the room.
    while (widthOf(from, last) > room && last - from > 1) {
      let fits = from + 1;
      while (fits < last && widthOf(from, fits + 1) <= room) fits++;
      if (fits >= last) break;
      ends.push(fits);
      from = fits;
    }
    width += widthOf(from, to);
  }
  return [...ends, text.length];
}
