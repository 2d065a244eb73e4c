import { type Line, moveStep, type Place, type ProcedureDocument, placesOf } from '@grivo/core';
import { type PointerEvent, type RefObject, useEffect, useRef, useState } from 'react';

/** Where a dragged step would come to stand. */
export interface Landing {
  place: Place;
  /** From the upper edge of the lines, in pixels. */
  top: number;
  depth: number;
}

/** Pixels a line of a block stands further in than its block. */
export const INDENT = 20;
/** Pixels moved before a press becomes a drag. */
const SLACK = 4;
const EDGE = 48;

/**
 * Dragging a step by its number: the pointer's height chooses between which lines, its distance from the left how deep.
 * @param lines the element all lines stand in; each carries `data-row` with its key
 * @param left pixels from the left edge of `lines` to the sentences of the outermost steps
 */
export function useLineDrag(
  document: ProcedureDocument,
  lines: readonly Line[],
  list: RefObject<HTMLElement | null>,
  left: number,
  onDrop: (key: string, place: Place) => void,
) {
  const [dragged, setDragged] = useState<{ key: string; landing: Landing | null } | null>(null);
  const press = useRef<{ key: string; x: number; y: number; moving: boolean } | null>(null);
  const moved = useRef(false);
  const end = () => {
    press.current = null;
    setDragged(null);
  };
  const isDragging = dragged !== null;
  useEffect(() => {
    if (!isDragging) return;
    const stop = (event: KeyboardEvent) => {
      if (event.key !== 'Escape') return;
      press.current = null;
      setDragged(null);
    };
    window.addEventListener('keydown', stop);
    return () => window.removeEventListener('keydown', stop);
  }, [isDragging]);
  return {
    dragged,
    /** Whether the press just ended was a drag and so no click. */
    wasDrag: () => moved.current,
    handlers: (key: string) => ({
      onPointerDown: (event: PointerEvent<HTMLElement>) => {
        moved.current = false;
        if (event.button !== 0) return;
        press.current = { key, x: event.clientX, y: event.clientY, moving: false };
        event.currentTarget.setPointerCapture(event.pointerId);
      },
      onPointerMove: ({ clientX, clientY }: PointerEvent<HTMLElement>) => {
        const now = press.current;
        if (!now || !list.current) return;
        if (!now.moving && Math.hypot(clientX - now.x, clientY - now.y) < SLACK) return;
        now.moving = true;
        moved.current = true;
        if (clientY > window.innerHeight - EDGE) window.scrollBy(0, 12);
        else if (clientY < EDGE) window.scrollBy(0, -12);
        setDragged({ key, landing: landingAt(document, lines, list.current, key, clientX - left, clientY) });
      },
      onPointerUp: () => {
        if (press.current?.moving && dragged?.landing) onDrop(key, dragged.landing.place);
        end();
      },
      onPointerCancel: end,
    }),
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
