import type { Article } from '@grivo/contract';
import { useVirtualizer } from '@tanstack/react-virtual';
import { memo, useDeferredValue, useEffect, useMemo, useState } from 'react';
import { Link } from 'react-router';
import { Mark, saysOf, stateOf, Tick } from '../../design/index.ts';
import { amount, atColon, count } from '../../words/figures.ts';
import { clock, dayLong, dayShort } from '../../words/time.ts';
import { useReadAhead } from '../readAhead.ts';
import type { Line } from './grouped.ts';
import { COLUMNS, Measured } from './Measured.tsx';
import { placeOf } from './place.ts';

const ROW = 24;
const GRID = 'grid grid-cols-[25px_15px_minmax(0,1fr)_70px_92px_40px_40px_80px] items-center';

/** What rows are drawn by. */
interface RowProps {
  /** The article the keys are at. */
  at: string | null;
  picked: ReadonlySet<string>;
  onPick: (id: string, range: boolean) => void;
  short: (blog: string | null) => string;
  now: number;
}

/** The lines poured into columns page by page, only those in view drawn. */
export function Columns({
  lines,
  onEnd,
  place,
  at,
  ...row
}: RowProps & {
  lines: readonly Line[];
  /** Told when the end of what was read is near. */
  onEnd: () => void;
  /** Names the list, whose place is kept. */
  place: string;
}) {
  const [frame, setFrame] = useState<HTMLDivElement | null>(null);
  const { sheets, perColumn, columns } = useSheets(lines, frame);
  const heights = (i: number) => Math.max(...sheets[i]!.map((column) => column.length)) * ROW + 28;
  const rows = useVirtualizer({
    count: sheets.length,
    getScrollElement: () => frame,
    estimateSize: heights,
    overscan: 0,
    initialOffset: placeOf(place).scrolled,
  });
  const visible = rows.getVirtualItems();
  const places = visible.map(({ index, start }) => `${index}:${start}`).join();
  // A hundred rows take longer to draw than a frame: drawn in slices, scrolling goes on meanwhile.
  // biome-ignore lint/correctness/useExhaustiveDependencies: what is to be drawn is told by the places
  const drawn = useDeferredValue(useMemo(() => visible.map(({ index, start }) => ({ index, start })), [places]));
  // biome-ignore lint/correctness/useExhaustiveDependencies: measured anew when the columns change
  useEffect(() => {
    rows.measure();
  }, [perColumn, columns, lines]);
  useReached(sheets, at, (visible.at(-1)?.index ?? 0) >= sheets.length - 2, onEnd, rows.scrollToIndex);
  return (
    <div
      ref={setFrame}
      className="overflow-auto"
      style={{ height: 'calc(100vh - 100px - 92px - 53px)' }}
      onScroll={(event) => {
        placeOf(place).scrolled = event.currentTarget.scrollTop;
      }}
      tabIndex={0}
      role="group"
      aria-label="Articles"
    >
      <div className="relative" style={{ height: rows.getTotalSize() }}>
        {drawn.map(({ index, start }) => (
          <Sheet key={index} columns={sheets[index] ?? []} start={start} at={at} {...row} />
        ))}
      </div>
    </div>
  );
}

/** Reads on where the end of what was read is near, and shows the row the keys are at. */
function useReached(
  sheets: readonly (readonly (readonly Line[])[])[],
  at: string | null,
  isNearEnd: boolean,
  onEnd: () => void,
  scrollTo: (sheet: number) => void,
) {
  useEffect(() => {
    if (isNearEnd) onEnd();
  }, [isNearEnd, onEnd]);
  useEffect(() => {
    if (at === null) return;
    const sheet = sheets.findIndex((columns) =>
      columns.some((column) => column.some((line) => line.kind === 'article' && line.article.id === at)),
    );
    if (sheet > 0) scrollTo(sheet);
  }, [at, sheets, scrollTo]);
}

/** The lines as pages of one or two columns, as many in each as fit. */
function useSheets(lines: readonly Line[], frame: HTMLDivElement | null) {
  const [size, setSize] = useState({ width: 1_280, height: 500 });
  useEffect(() => {
    if (!frame) return;
    const watch = new ResizeObserver(() => setSize({ width: frame.clientWidth, height: frame.clientHeight }));
    watch.observe(frame);
    return () => watch.disconnect();
  }, [frame]);
  const columns = size.width >= 1_100 ? 2 : 1;
  const perColumn = columns === 1 ? 50 : Math.max(8, Math.floor((size.height - 28) / ROW));
  const sheets = useMemo(() => {
    const out: Line[][][] = [];
    for (let i = 0; i < lines.length; i += perColumn * columns) {
      const sheet: Line[][] = [];
      for (let c = 0; c < columns; c++) sheet.push(lines.slice(i + c * perColumn, i + (c + 1) * perColumn));
      out.push(sheet);
    }
    return out;
  }, [lines, perColumn, columns]);
  return { sheets, perColumn, columns };
}

/** One page of rows, side by side in columns. */
const Sheet = memo(function Sheet({
  columns,
  start,
  ...row
}: RowProps & { columns: readonly (readonly Line[])[]; start: number }) {
  return (
    <div
      className="absolute inset-x-0 grid"
      style={{ transform: `translateY(${start}px)`, gridTemplateColumns: `repeat(${columns.length}, minmax(0, 1fr))` }}
    >
      {columns.map((column, c) => (
        <div
          key={c}
          className={`${c === 0 ? 'pl-8' : 'border-l border-rule pl-4'} ${c === columns.length - 1 ? 'pr-8' : 'pr-4'}`}
        >
          <Names />
          {column.map((line) =>
            line.kind === 'head' ? (
              <div
                key={line.says}
                className="flex h-6 items-center justify-between border-b border-rule-soft text-small font-semibold text-ink-2"
              >
                {line.says}
                {line.n === null ? null : <span className="fig font-normal text-ink-3">{count(line.n)}</span>}
              </div>
            ) : (
              <ArticleRow
                key={line.article.id}
                article={line.article}
                at={row.at === line.article.id}
                picked={row.picked.has(line.article.id)}
                onPick={row.onPick}
                short={row.short}
                now={row.now}
              />
            ),
          )}
        </div>
      ))}
    </div>
  );
});

/** What stands in which column. */
function Names() {
  return (
    <div className={`${GRID} h-7 border-b border-ink text-small text-ink-3`}>
      <span />
      <span />
      <span>Title</span>
      <span>Blog</span>
      <span>Slot or out</span>
      <span className="text-right">Words</span>
      <span className="text-right">€</span>
      <span className="flex justify-self-end">
        {COLUMNS.map(({ letter, name }) => (
          <span key={letter} title={name} className="w-[15px] text-center">
            {letter}
          </span>
        ))}
      </span>
    </div>
  );
}

const ArticleRow = memo(function ArticleRow({
  article,
  at,
  picked,
  onPick,
  short,
  now,
}: {
  article: Article;
  at: boolean;
  picked: boolean;
  onPick: (id: string, range: boolean) => void;
  short: (blog: string | null) => string;
  now: number;
}) {
  const [near, setNear] = useState(false);
  useReadAhead(at || near ? article.id : null);
  const when = article.outDesk ?? article.dueDesk;
  const late = article.outDesk === null && when !== null && when < now - 600_000;
  return (
    <div className={`row ${GRID} h-6 ${picked ? 'picked' : ''} ${at ? 'brackets bracketed' : ''}`}>
      <Tick
        state={picked}
        label={`Pick ${article.title === '' ? 'one without a title' : article.title}`}
        onChange={(_, { shiftKey }) => onPick(article.id, shiftKey)}
      />
      <Mark state={stateOf(article.standing)} label={saysOf(article.standing)} />
      <Link
        to={`/articles/${article.id}`}
        className="work brackets mr-2 truncate leading-6"
        title={article.title}
        onPointerEnter={() => setNear(true)}
        onPointerLeave={() => setNear(false)}
      >
        {article.title === '' ? <span className="text-ink-3">no title yet</span> : atColonIfLong(article.title)}
      </Link>
      <span className="mr-1 truncate text-small text-ink-2">{short(article.blog)}</span>
      <span className={`fig whitespace-nowrap ${when === null ? 'text-ink-3' : late ? 'text-red' : 'text-ink-2'}`}>
        {when === null ? 'no slot' : `${dayOf(when, now)} ${clock(when)}`}
      </span>
      <span className="fig text-right">{count(article.words)}</span>
      <span className="fig text-right">{amount(article.micros)}</span>
      <Measured outOfRange={article.outOfRange} />
    </div>
  );
});

const NEAR_MS = 25 * 86_400_000;

/** 'Wed 27' within the weeks around now, else '27 Nov', with its year where that is another. */
function dayOf(ms: number, now: number): string {
  if (Math.abs(ms - now) < NEAR_MS) return dayShort(ms);
  const [, ...date] = dayLong(ms).replace(',', '').split(' ');
  const year = new Date(ms).getFullYear();
  return year === new Date(now).getFullYear() ? date.join(' ') : `${date.join(' ')} ’${String(year).slice(2)}`;
}

function atColonIfLong(title: string): string {
  return title.length > 44 ? atColon(title) : title;
}
