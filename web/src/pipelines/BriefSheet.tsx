import type { SheetColumn as Column, SheetRow } from '@grivo/contract';
import { languageName } from '@grivo/core';
import { useVirtualizer } from '@tanstack/react-virtual';
import { type CSSProperties, memo, type RefObject, useCallback, useEffect, useRef } from 'react';
import type { z } from 'zod';
import { Mark, type MarkState, saysOf, stateOf, Tick } from '../design/index.ts';
import { useWidth } from '../shell/useWidth.ts';
import { amount, count } from '../words/figures.ts';
import { moment } from '../words/time.ts';

type SheetColumn = z.infer<typeof Column>;

const ROW = 24;
/** Masthead, band, the pipeline's head and the filters. */
const ABOVE = 212;

/** What the other columns and the margins take of the width, and the name of a step that takes most of its own. */
const BESIDE_CELLS = 754;
const WIDEST_NAME = 56;

/** The letters of a row as marks. */
const MARKS: Record<string, MarkState> = { d: 'done', b: 'busy', h: 'wait', s: 'stop', w: 'plan', c: 'aside' };

/**
 * Tick, subject, the cells of all steps, then when, how long, how dear, why. Every width but the subject's is settled, so that
 * the head and all rows, each a grid of its own, agree. The cells are one track, shared out evenly by whoever draws in it:
 * with a track a step, each row took as long to lay out as everything else in it.
 */
const grid = (columns: number) => {
  const n = Math.max(1, columns);
  return `26px minmax(120px, 1fr) calc(${n} * clamp(15px, (100% - 690px) / ${n}, 79px) - 3px) 148px 50px 52px 208px`;
};

interface SheetProps {
  columns: readonly SheetColumn[];
  rows: readonly SheetRow[];
  now: number;
  /** The newest version of the procedure. */
  newest: number;
  open: string | null;
  step: string | null;
  picked: ReadonlySet<string>;
  choose: (brief: string, step: string | null) => void;
  /** With whether all up to the one picked before are meant. */
  toggle: (brief: string, range: boolean) => void;
  more: (() => void) | null;
  /** How much of the height is left above what stands below. */
  below: string;
}

/** Briefs as rows against the steps as columns; only the rows in sight are drawn. */
export function BriefSheet(props: SheetProps) {
  const { columns, rows, now, newest, open, step, picked, choose, toggle, below } = props;
  const frame = useRef<HTMLDivElement>(null);
  const { virtual, seen, pool } = useSeenRows(props, frame);
  return (
    <div
      ref={frame}
      className="min-h-[180px] overflow-auto bg-sheet px-8"
      style={{ height: `calc(${below} - ${ABOVE}px)` }}
      tabIndex={0}
      role="group"
      aria-label="Briefs against steps"
    >
      <SheetHead columns={columns} step={step} />
      <ul className="relative" style={{ height: virtual.getTotalSize() }}>
        {seen.map(({ index, start }) => {
          const row = rows[index]!;
          return (
            // biome-ignore lint/a11y/useKeyWithClickEvents: J, K, H and L do the same
            <li
              key={index % pool}
              className="absolute inset-x-0 [contain:layout_style]"
              style={{ transform: `translateY(${start}px)` }}
              onClick={({ target, clientX }) => {
                if (!(target instanceof Element) || target.closest('.tick')) return;
                choose(row.id, stepAt(target.closest('[data-cells]'), clientX, columns));
              }}
            >
              <Row
                row={row}
                columns={columns}
                when={whenOf(row, now)}
                newest={newest}
                open={row.id === open}
                step={row.id === open ? step : null}
                picked={picked.has(row.id)}
                toggle={toggle}
              />
            </li>
          );
        })}
      </ul>
    </div>
  );
}

/** Which rows are in sight; asks for more before the last is. */
function useSeenRows({ rows, open, more }: SheetProps, frame: RefObject<HTMLDivElement | null>) {
  // The same function as long as the rows are: with another at every draw all ten thousand would be measured again.
  const keyAt = useCallback((i: number) => rows[i]!.id, [rows]);
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => frame.current,
    estimateSize: (i) => ROW * (1 + (rows[i]?.siblings.length ?? 0)),
    getItemKey: keyAt,
    overscan: 3,
    // What is in sight is drawn in a task after the one that scrolls, not within it.
    useFlushSync: false,
  });
  const at = rows.findIndex((row) => row.id === open);
  useEffect(() => {
    if (at >= 0) virtual.scrollToIndex(at);
  }, [at, virtual]);
  const seen = virtual.getVirtualItems();
  // A row that leaves is drawn anew as one that comes: as many places as were ever in sight at once.
  const pool = useRef(1);
  pool.current = Math.max(pool.current, seen.length);
  const last = seen.at(-1)?.index ?? 0;
  useEffect(() => {
    if (more && last >= rows.length - 40) more();
  }, [more, last, rows.length]);
  return { virtual, seen, pool: pool.current };
}

function SheetHead({ columns, step }: Pick<SheetProps, 'columns' | 'step'>) {
  // Names of steps that would be cut stand upright.
  const upright = (useWidth() - BESIDE_CELLS) / columns.length < WIDEST_NAME;
  return (
    <div
      className="sticky top-0 z-10 grid items-end gap-x-[3px] border-b border-ink bg-sheet pt-2 pb-1 text-micro text-ink-3"
      style={{ gridTemplateColumns: grid(columns.length) }}
    >
      <span />
      <span>Subject</span>
      <span className={`grid auto-cols-fr grid-flow-col gap-x-[3px] ${upright ? 'items-start' : 'items-end'}`}>
        {columns.map((column) => (
          <span
            key={column.step}
            title={`${column.n}, ${column.kind}`}
            className={`overflow-hidden whitespace-nowrap ${column.step === step ? 'font-semibold text-ink' : ''} ${column.depth > 0 ? 'border-l border-rule-strong pl-px' : ''}`}
          >
            <span className="fig block">{column.n}</span>
            <span className={upright ? 'inline-block [writing-mode:vertical-rl]' : ''}>{column.kind}</span>
          </span>
        ))}
      </span>
      <span className="pl-2">Slot</span>
      <span className="text-right">Words</span>
      <span className="text-right">€</span>
      <span className="pl-2">Standing</span>
    </div>
  );
}

/** The step whose column is at a place across the cells; null beside them. */
function stepAt(cells: Element | null, x: number, columns: readonly SheetColumn[]): string | null {
  if (!cells) return null;
  const { left, width } = cells.getBoundingClientRect();
  const at = Math.floor(((x - left) / width) * columns.length);
  return columns[Math.max(0, Math.min(columns.length - 1, at))]?.step ?? null;
}

const Row = memo(function Row({
  row,
  columns,
  when,
  newest,
  open,
  step,
  picked,
  toggle,
}: {
  row: SheetRow;
  columns: readonly SheetColumn[];
  when: string;
  newest: number;
  open: boolean;
  step: string | null;
  picked: boolean;
  toggle: (brief: string, range: boolean) => void;
}) {
  const gridTemplateColumns = grid(columns.length);
  return (
    <div className={`row ${open || picked ? 'picked' : ''}`}>
      <div className="grid items-center gap-x-[3px]" style={{ gridTemplateColumns, height: ROW }}>
        <Tick
          key={`tick ${row.id}`}
          label={row.subject}
          state={picked}
          onChange={(_, { shiftKey }) => toggle(row.id, shiftKey)}
        />
        <button
          key={`subject ${row.id}`}
          type="button"
          className="brackets flex min-w-0 items-center gap-2 text-left"
          aria-expanded={open}
        >
          <Mark state={stateOf(row.standing)} />
          <span className="truncate">{row.subject}</span>
        </button>
        <Cells cells={row.cells} columns={columns} step={step} aside={row.standing === 'set aside'} />
        <span className="fig truncate pl-2 text-ink-2">{when}</span>
        <span className="fig text-right">{row.words === null ? '' : count(row.words)}</span>
        <span className="fig text-right">{row.micros === 0 ? '' : amount(row.micros)}</span>
        <span
          title={saysOfRow(row, newest)}
          className={`truncate pl-2 text-small ${row.standing === 'stopped' ? 'text-red' : 'text-ink-2'}`}
        >
          {saysOfRow(row, newest)}
        </span>
      </div>
      {row.siblings.map((sibling) => (
        <Sibling key={sibling.line} it={sibling} columns={columns} />
      ))}
    </div>
  );
});

/** An article made beside, on a line of its own. */
function Sibling({ it, columns }: { it: SheetRow['siblings'][number]; columns: readonly SheetColumn[] }) {
  return (
    <div className="grid items-center gap-x-[3px]" style={{ gridTemplateColumns: grid(columns.length), height: ROW }}>
      <span />
      <span className="truncate border-l border-rule-strong pl-3 text-small text-ink-2">
        {languageName(it.language)}, <span className="work">{it.title || 'no title yet'}</span>
      </span>
      <Cells cells={it.cells} columns={columns} step={null} aside={false} />
      <span />
      <span className="fig text-right">{it.words === null ? '' : count(it.words)}</span>
      <span />
      <span />
    </div>
  );
}

/** When it goes or went out; of one that waits, when it begins. */
function whenOf({ slot, begins }: SheetRow, now: number): string {
  if (slot !== null) return moment(slot, now);
  return begins?.at == null ? '' : begins.at <= now ? 'begins now' : moment(begins.at, now);
}

const WAITS: Record<NonNullable<SheetRow['begins']>['for'], string> = {
  'its turn': 'begins in a moment',
  'the time between two': 'waits its turn',
  'one in work to end': 'waits for others to end',
};

/** How a brief stands, in words: of one that waits, for what; of one by an older version, which. */
function saysOfRow({ says, standing, begins, version }: SheetRow, newest: number): string {
  if (begins) return `${WAITS[begins.for]}${begins.after > 0 ? `, ${count(begins.after)} before it` : ''}`;
  const words = says === standing ? saysOf(standing) : says;
  const old = version < newest && standing !== 'out' && standing !== 'set aside';
  return old ? `${words}, by version ${version}` : words;
}

function Cells({
  cells,
  columns,
  step,
  aside,
}: {
  cells: string;
  columns: readonly SheetColumn[];
  step: string | null;
  aside: boolean;
}) {
  return (
    <span className="relative h-full cursor-pointer" data-cells="">
      {runsOf(cells, columns, step, aside).map(({ at, many, state, chosen }) => (
        <span
          key={at}
          // A bar comes and goes while a brief is worked on; pressed, what stays has to be under the pointer, or the press is lost.
          className={`mk bar pointer-events-none absolute ${state === 'plan' ? 'top-[10px]' : 'top-[7px]'} ${state} ${many > 1 ? 'many' : ''} ${chosen ? 'chosen' : ''}`}
          style={
            {
              left: `calc((100% + 3px) * ${at / columns.length})`,
              width: `calc((100% + 3px) * ${many / columns.length} - 3px)`,
              '--many': many,
            } as CSSProperties
          }
        />
      ))}
    </span>
  );
}

interface CellRun {
  at: number;
  many: number;
  state: MarkState;
  chosen: boolean;
}

/**
 * Cells of one state beside each other, as far as they are drawn alike side by side: one element for all of them. With an
 * element a cell, a jump through ten thousand briefs of thirty steps took twice a frame's patience.
 */
function runsOf(cells: string, columns: readonly SheetColumn[], step: string | null, aside: boolean): CellRun[] {
  const runs: CellRun[] = [];
  for (const [at, column] of columns.entries()) {
    const state = cells[at] === '.' ? (aside ? 'aside' : 'plan') : (MARKS[cells[at] ?? '.'] ?? 'plan');
    const chosen = column.step === step;
    const last = runs.at(-1);
    if (last && !chosen && !last.chosen && last.state === state && (state === 'done' || state === 'plan')) last.many++;
    else runs.push({ at, many: 1, state, chosen });
  }
  return runs;
}
