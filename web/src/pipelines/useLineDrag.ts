import { type Line, moveStep, type Place, type ProcedureDocument, placesOf } from '@grivo/core';
import { type RefObject, useState } from 'react';
import type { Drag } from '../design/index.ts';

/** Where a dragged step would come to stand. */
export interface Landing {
  place: Place;
  /** From the upper edge of the lines, in pixels. */
  top: number;
  depth: number;
}

/** Pixels a line of a block stands further in than its block. */
export const INDENT = 20;

/**
 * Dragging a step by its number: the pointer's height chooses between which lines, its distance from the left how deep.
 * @param list the element all lines stand in; each carries `data-row` with its key
 * @param left pixels from the left edge of `list` to the sentences of the outermost steps
 */
export function useLineDrag(
  document: ProcedureDocument,
  lines: readonly Line[],
  list: RefObject<HTMLElement | null>,
  left: number,
  onDrop: (key: string, place: Place) => void,
) {
  const [dragged, setDragged] = useState<{ key: string; landing: Landing | null } | null>(null);
  const landing = ({ id, x, y }: Drag) =>
    list.current ? landingAt(document, lines, list.current, id, x - left, y) : null;
  return {
    dragged,
    ground: {
      onMove: (drag: Drag) => setDragged({ key: drag.id, landing: landing(drag) }),
      onDrop: (drag: Drag) => {
        const there = landing(drag);
        if (there) onDrop(drag.id, there.place);
        setDragged(null);
      },
      onLeave: () => setDragged(null),
    },
  };
}

function landingAt(
  document: ProcedureDocument,
  lines: readonly Line[],
  list: HTMLElement,
  key: string,
  x: number,
  y: number,
): Landing | null {
  const base = list.getBoundingClientRect();
  let above: { key: string; bottom: number } | null = null;
  for (const line of lines) {
    const row = list.querySelector(`[data-row="${line.key}"]`)?.getBoundingClientRect();
    if (!row) continue;
    // What is still empty is meant as soon as the pointer is on it, a step from its middle on.
    if (y < (line.step ? (row.top + row.bottom) / 2 : row.top)) break;
    above = { key: line.key, bottom: row.bottom };
  }
  if (!above) return null;
  const after = above.key;
  const deep = (x - base.left) / INDENT;
  const [best] = placesOf(document)
    .filter((one) => one.after === after && moveStep(document, key, one.place) !== null)
    .sort((a, b) => Math.abs(a.depth - deep) - Math.abs(b.depth - deep) || b.depth - a.depth);
  return best ? { place: best.place, depth: best.depth, top: above.bottom - base.top } : null;
}
