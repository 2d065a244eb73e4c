import type { Slot } from '@grivo/contract';
import { atColon } from '../words/figures.ts';

/** Titles hang below a blog's chart in so many rows at most, from 0. */
const MOST_LABEL_ROWS = 7;
/** From here on, in hundredths of a chart, titles hang to the left of their slots. */
export const RIGHT_FROM = 80;
/** Width of a letter of a label, and what stands to the left and right of a chart. */
const LETTER_PX = 6.8;
export const BESIDE_CHART_PX = 120;

/**
 * Rows for the titles, from the right: a title further left hangs deeper, so that no stem crosses another's words.
 * @param chartPx how wide the chart is
 */
export function hung(slots: readonly { slot: Slot; x: number }[], chartPx: number): { slot: Slot; row: number }[] {
  const rows: { from: number; to: number }[][] = [];
  const perLetter = (LETTER_PX / chartPx) * 100;
  return [...slots].reverse().flatMap(({ slot, x }) => {
    const width = Math.min(34, atColon(slot.title!).length) * perLetter + 1.8;
    const span = x > RIGHT_FROM ? { from: x - width, to: x } : { from: x, to: x + width };
    let row = rows.findIndex((taken) => taken.every((other) => other.to <= span.from || other.from >= span.to));
    if (row < 0) row = rows.length;
    // What has no room is in the list below, as everything is.
    if (row >= MOST_LABEL_ROWS) return [];
    rows[row] = [...(rows[row] ?? []), span];
    return [{ slot, row }];
  });
}
