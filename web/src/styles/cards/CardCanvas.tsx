import type { CardBox, CardDocument } from '@grivo/core';
import { type KeyboardEvent, type PointerEvent, useRef, useState } from 'react';
import { useMay } from '../../design/index.ts';
import type { CardDraft, Picked } from './useDraft.ts';

type Part = NonNullable<Picked>;
const PARTS = ['areas', 'pictures', 'texts'] as const;
const NAMES = { areas: 'Area', pictures: 'Picture', texts: 'Text' } as const;

/** An SVG as the address of a picture: what stands in it cannot run. */
export const svgAddress = (svg: string): string => `data:image/svg+xml,${encodeURIComponent(svg)}`;

/** The card large, as it is drawn; what stands on it can be picked and moved. */
export function CardCanvas({
  draft: { card, change },
  svg,
  picked,
  pick,
}: {
  draft: CardDraft;
  svg: string | null;
  picked: Picked;
  pick: (picked: Picked) => void;
}) {
  const ground = useRef<HTMLDivElement>(null);
  const put = ({ what, n }: Part, box: CardBox) =>
    change({ [what]: card[what].map((it, i) => (i === n ? { ...it, box } : it)) });
  return (
    <div
      ref={ground}
      className="relative isolate w-full overflow-hidden border border-ink bg-sheet"
      style={{
        aspectRatio: `${card.width} / ${card.height}`,
        maxHeight: '60vh',
        maxWidth: `calc(60vh * ${card.width / card.height})`,
      }}
    >
      {svg === null ? null : (
        <img src={svgAddress(svg)} alt="The card as it is drawn" className="absolute inset-0 size-full" />
      )}
      {PARTS.flatMap((what) =>
        card[what].map((one, n) => (
          <Handle
            key={`${what} ${n}`}
            card={card}
            box={one.box}
            label={what === 'texts' ? `Text ${card.texts[n]!.says}` : `${NAMES[what]} ${n + 1}`}
            isPicked={picked?.what === what && picked.n === n}
            scale={() => card.width / (ground.current?.clientWidth || card.width)}
            onPick={() => pick({ what, n })}
            onPut={(box) => put({ what, n }, box)}
          />
        )),
      )}
    </div>
  );
}

const STEP = 10;
/** Pixels (WCAG 2.2, 2.5.8). */
const LEAST_TARGET = 24;
const MOVES: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

const moved = (box: CardBox, x: number, y: number, sizes: boolean): CardBox =>
  sizes
    ? { ...box, width: Math.max(1, Math.round(box.width + x)), height: Math.max(1, Math.round(box.height + y)) }
    : { ...box, x: Math.round(box.x + x), y: Math.round(box.y + y) };

const share = (n: number, of: number) => `${(n / of) * 100}%`;
// What is thinner than a finger's tip can be pressed all the same.
const begins = (start: number, size: number, of: number) =>
  `min(${share(start, of)}, calc(${share(start + size / 2, of)} - ${LEAST_TARGET / 2}px))`;
const size = (n: number, of: number) => `max(${share(n, of)}, ${LEAST_TARGET}px)`;

/** A box while it is dragged or drawn larger. */
function useDragged({
  box,
  scale,
  onPick,
  onPut,
  may,
}: {
  box: CardBox;
  scale: () => number;
  onPick: () => void;
  onPut: (box: CardBox) => void;
  may: boolean;
}) {
  const [dragged, setDragged] = useState<CardBox | null>(null);
  const held = useRef<{ x: number; y: number; sizes: boolean } | null>(null);
  const at = dragged ?? box;
  const begin = (event: PointerEvent<HTMLElement>, sizes: boolean) => {
    if (!may || event.button !== 0) return;
    event.stopPropagation();
    event.currentTarget.setPointerCapture(event.pointerId);
    held.current = { x: event.clientX, y: event.clientY, sizes };
    onPick();
  };
  const move = (event: PointerEvent<HTMLElement>) => {
    if (!held.current) return;
    const { x, y, sizes } = held.current;
    setDragged(moved(box, (event.clientX - x) * scale(), (event.clientY - y) * scale(), sizes));
  };
  const end = () => {
    if (dragged && JSON.stringify(dragged) !== JSON.stringify(box)) onPut(dragged);
    held.current = null;
    setDragged(null);
  };
  return { at, begin, move, end };
}

/** The box of something on the card: picked by a press, moved by dragging or with the arrows. */
function Handle({
  card,
  box,
  label,
  isPicked,
  scale,
  onPick,
  onPut,
}: {
  card: CardDocument;
  box: CardBox;
  label: string;
  isPicked: boolean;
  /** Pixels of the card for one of the screen. */
  scale: () => number;
  onPick: () => void;
  onPut: (box: CardBox) => void;
}) {
  const may = useMay();
  const { at, begin, move, end } = useDragged({ box, scale, onPick, onPut, may });
  const onKeyDown = (event: KeyboardEvent) => {
    const by = MOVES[event.key];
    if (!by || !may) return;
    event.preventDefault();
    onPut(moved(box, by[0] * STEP, by[1] * STEP, event.shiftKey));
  };
  return (
    <button
      type="button"
      aria-pressed={isPicked}
      aria-label={`${label}, at ${at.x}, ${at.y}, ${at.width} × ${at.height}`}
      className={`absolute touch-none border ${isPicked ? 'border-2 border-red' : 'border-transparent hover:border-ink hover:border-dashed'} ${may ? 'cursor-move' : ''}`}
      style={{
        left: begins(at.x, at.width, card.width),
        top: begins(at.y, at.height, card.height),
        width: size(at.width, card.width),
        height: size(at.height, card.height),
        // What is small lies above what is large, so that it can be pressed.
        zIndex: Math.max(0, Math.round(100 * (1 - (at.width * at.height) / (card.width * card.height)))),
      }}
      onClick={onPick}
      onKeyDown={onKeyDown}
      onPointerDown={(event) => begin(event, false)}
      onPointerMove={move}
      onPointerUp={end}
      onPointerCancel={end}
    >
      {isPicked && may ? (
        <span
          aria-hidden
          className="absolute -right-1.5 -bottom-1.5 size-3 cursor-nwse-resize border border-red bg-sheet"
          onPointerDown={(event) => begin(event, true)}
          onPointerMove={move}
          onPointerUp={end}
        />
      ) : null}
    </button>
  );
}
