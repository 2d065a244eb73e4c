import type { Unit } from '@grivo/core';

/** Letters of text in one call. */
const MOST_LETTERS = 5_000;

/** Texts in as many calls as they need; one that is longer than a call goes by itself. */
export function portions(units: readonly Unit[]): Unit[][] {
  const out: Unit[][] = [];
  let letters = Number.POSITIVE_INFINITY;
  for (const unit of units) {
    if (letters + unit.text.length > MOST_LETTERS) {
      out.push([]);
      letters = 0;
    }
    out.at(-1)!.push(unit);
    letters += unit.text.length;
  }
  return out;
}
