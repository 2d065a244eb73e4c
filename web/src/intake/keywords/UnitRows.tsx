import type { Item } from '@grivo/contract';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useRef } from 'react';
import { Link } from 'react-router';
import { Mark, saysOf, stateOf, Tick } from '../../design/index.ts';
import { atColon, count } from '../../words/figures.ts';
import { answerOf, itemsOf, lastTaken, ORDERS, type Order, type Unit } from './units.ts';

/** What stands in a row beside the phrase. */
export interface Columns {
  grouped: boolean;
  measured: boolean;
}

/** The widths of a row's cells; its second line, where there is one, lies below them. */
export function columnsOf({ grouped, measured }: Columns): string {
  if (grouped && measured) return 'grid-cols-[28px_minmax(0,1fr)_64px_60px_64px_72px_92px]';
  if (grouped) return 'grid-cols-[28px_minmax(0,1fr)_64px_60px]';
  return measured ? 'grid-cols-[28px_minmax(0,1.9fr)_60px_72px_84px_20px_minmax(0,1fr)]' : 'grid-cols-[28px_1fr_260px]';
}

const ROW = 24;
const GROUP_ROW = 44;

interface RowsProps {
  units: readonly Unit[];
  columns: Columns;
  ticked: ReadonlySet<string>;
  at: number;
  takeable: (unit: Unit) => boolean;
  onToggle: (unit: Unit) => void;
  onAt: (at: number) => void;
}

/** Thousands of phrases or groups as a virtual list: only what is in view is drawn. */
export function UnitRows({ units, columns, ticked, at, takeable, onToggle, onAt }: RowsProps) {
  const frame = useRef<HTMLDivElement>(null);
  const { grouped } = columns;
  const height = grouped ? GROUP_ROW : ROW;
  const rows = useVirtualizer({
    count: units.length,
    getScrollElement: () => frame.current,
    estimateSize: () => height,
    overscan: 3,
  });
  useEffect(() => {
    if (units.length > 0) rows.scrollToIndex(Math.min(at, units.length - 1));
  }, [at, units.length, rows]);
  return (
    <div
      ref={frame}
      className="min-h-0 flex-1 overflow-auto"
      tabIndex={0}
      role="group"
      aria-label={grouped ? 'Groups of the list' : 'Phrases of the list'}
    >
      <ul className="relative" style={{ height: rows.getTotalSize() }}>
        {rows.getVirtualItems().map(({ index, start }) => {
          const unit = units[index]!;
          return (
            // biome-ignore lint/a11y/useKeyWithClickEvents: J, K and Space do the same
            <li
              key={unit.id}
              className={`row absolute inset-x-0 ${ticked.has(unit.id) ? 'picked' : ''} ${index === at ? 'brackets bracketed' : ''}`}
              style={{ transform: `translateY(${start}px)`, height }}
              onClick={(event) => {
                // Ticks and links in the row do their own.
                if (event.target instanceof Element && event.target.closest('button, a')) return;
                onAt(index);
                onToggle(unit);
              }}
            >
              <UnitRow
                unit={unit}
                columns={columns}
                ticked={ticked.has(unit.id)}
                open={takeable(unit)}
                onToggle={() => onToggle(unit)}
              />
            </li>
          );
        })}
      </ul>
    </div>
  );
}

function UnitRow({
  unit,
  columns,
  ticked,
  open,
  onToggle,
}: {
  unit: Unit;
  columns: Columns;
  ticked: boolean;
  open: boolean;
  onToggle: () => void;
}) {
  const { grouped, measured } = columns;
  const { subject } = unit.head;
  return (
    <>
      <div className={`grid h-6 items-center ${columnsOf(columns)}`}>
        {open ? <Tick label={subject} state={ticked} onChange={onToggle} /> : <span />}
        <span className={`truncate pr-3 ${grouped ? 'font-semibold' : ''} ${open ? '' : 'text-ink-3'}`} title={subject}>
          {subject}
        </span>
        {grouped ? (
          <>
            <span className="text-small text-ink-2">{unit.want}</span>
            <span className={`fig text-right ${open ? '' : 'text-ink-3'}`}>{count(itemsOf(unit).length)}</span>
          </>
        ) : null}
        {measured ? <Figures unit={unit} open={open} /> : null}
        {grouped ? null : (
          <>
            {measured ? <span /> : null}
            <Became unit={unit} />
          </>
        )}
      </div>
      {grouped ? (
        <div className="flex h-5 min-w-0 items-baseline gap-4 pl-7 text-small text-ink-2">
          <Others items={unit.rest} />
          <span className="ml-auto max-w-[60%] shrink-0">
            <Became unit={unit} />
          </span>
        </div>
      ) : null}
    </>
  );
}

function Figures({ unit, open }: { unit: Unit; open: boolean }) {
  return (Object.keys(ORDERS) as Order[]).map((one) => {
    const figure = unit[one];
    return (
      <span
        key={one}
        className={`fig text-right ${open ? '' : 'text-ink-3'} ${one === 'opportunity' ? 'font-semibold' : ''}`}
      >
        {figure === null ? '' : count(Math.round(figure))}
      </span>
    );
  });
}

function Others({ items }: { items: readonly Item[] }) {
  return (
    <span className="min-w-0 truncate" title={items.map(({ subject }) => subject).join(', ')}>
      {items.map(({ id, subject, volume }) => (
        <span key={id} className="pr-3">
          {subject}
          {volume === null ? null : <span className="fig pl-1 text-ink-3">{count(volume)}</span>}
        </span>
      ))}
    </span>
  );
}

/** What was made of it, or the article we have for it. */
function Became({ unit }: { unit: Unit }) {
  const last = lastTaken(unit);
  const answer = answerOf(unit);
  if (last) {
    const briefs = new Set(itemsOf(unit).flatMap(({ taken }) => taken.map(({ brief }) => brief))).size;
    return (
      <Link
        to={`/pipelines/${last.pipeline}?show=briefs&brief=${last.brief}`}
        className="brackets flex items-center gap-2 text-small text-ink-3 hover:text-ink"
      >
        <Mark state={stateOf(last.standing)} /> {saysOf(last.standing)}
        {briefs > 1 ? `, and ${briefs - 1} more` : ''}
      </Link>
    );
  }
  if (!answer) return <span />;
  return (
    <Link
      to={`/articles/${answer.id}`}
      className="brackets block truncate text-small text-ink-3 hover:text-ink"
      title={answer.title}
    >
      covered by <span className="font-read">{atColon(answer.title)}</span>
    </Link>
  );
}
