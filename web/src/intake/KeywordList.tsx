import type { Item, SourceWhole } from '@grivo/contract';
import { opportunity } from '@grivo/core';
import { useQuery } from '@tanstack/react-query';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useMemo, useRef, useState } from 'react';
import { Link } from 'react-router';
import { inWords } from '../api/call.ts';
import { read } from '../api/queries.ts';
import { ActionBar, Empty, Head, Key, Loading, Mark, saysOf, stateOf, Tick, Trouble } from '../design/index.ts';
import { useViewKeys } from '../shell/keys.ts';
import { atColon, count, plural } from '../words/figures.ts';
import { LeftOut } from './LeftOut.tsx';
import { ExcludeWord, type Settings } from './LookWords.tsx';
import { Paste } from './Paste.tsx';
import { IntoWords, TakeButton, TakenHere, useTakingInto } from './TakeInto.tsx';
import { useChange } from './useSource.ts';

const ROW = 24;

/** What phrases may be ordered by, the most promising first. */
const ORDERS = {
  volume: { says: 'volume', does: 'searches a month, as the file told; most first', of: (item: Item) => item.volume },
  difficulty: {
    says: 'difficulty',
    does: 'how hard it is to be found, 0 to 100; easiest first',
    of: (item: Item) => item.difficulty,
  },
  opportunity: {
    says: 'opportunity',
    does: 'volume × (100 − difficulty) ÷ 100; most first',
    of: (item: Item) => opportunity(item.subject, item),
  },
} as const;
type Order = keyof typeof ORDERS;

/** Phrases in an order; those nothing is known of keep theirs at the end. */
function ordered(items: Item[], order: Order | null): Item[] {
  if (order === null) return items;
  const way = order === 'difficulty' ? 1 : -1;
  const known = (item: Item) => ORDERS[order].of(item);
  return items.toSorted((a, b) => {
    const [one, other] = [known(a), known(b)];
    if (one === null || other === null) return (one === null ? 1 : 0) - (other === null ? 1 : 0);
    return way * (one - other);
  });
}

const PLAIN = 'grid-cols-[28px_1fr_260px]';
const MEASURED = 'grid-cols-[28px_minmax(0,1.9fr)_60px_72px_84px_20px_minmax(0,1fr)]';

/** One keyword list: its phrases, what was made of them, and taking the ticked ones into a pipeline. */
export function KeywordList({ source, settings }: { source: SourceWhole; settings: Settings<'keywords'> }) {
  const { id } = source;
  const change = useChange(source);
  const items = useQuery(read.items(id));
  const [filter, setFilter] = useState('');
  const [ticked, setTicked] = useState<ReadonlySet<string>>(new Set());
  const [at, setAt] = useState(0);
  const [order, setOrder] = useState<Order | null>(null);
  const into = useTakingInto(id, 'keywords', () => setTicked(new Set()));
  const { pipeline } = into;
  const shown = useMemo(() => {
    const words = filter.trim().toLowerCase();
    const some = (items.data?.items ?? []).filter(
      (item) => item.leftOut === null && item.subject.toLowerCase().includes(words),
    );
    return ordered(some, order);
  }, [items.data, filter, order]);
  const measured = useMemo(
    () => (items.data?.items ?? []).some((item) => item.volume !== null || item.difficulty !== null),
    [items.data],
  );
  const takeable = (item: Item) => !pipeline || !item.taken.some((one) => one.pipeline === pipeline.id);
  const toggle = (item: Item) => {
    if (!takeable(item)) return;
    const next = new Set(ticked);
    if (!next.delete(item.id)) next.add(item.id);
    setTicked(next);
  };
  const picked = [...ticked];
  const canTake = picked.length > 0 && pipeline !== undefined && !into.take.isPending;
  useViewKeys({
    j: () => setAt((n) => Math.min(shown.length - 1, n + 1)),
    k: () => setAt((n) => Math.max(0, n - 1)),
    ' ': shown[at] ? () => toggle(shown[at]!) : null,
    t: canTake ? () => into.take.mutate({ items: picked }) : null,
  });
  if (items.isPending)
    return (
      <div className="pt-8">
        <Loading rows={10} />
      </div>
    );
  if (!items.data) return <Trouble>{inWords(items.error)}</Trouble>;
  // What an article of ours answers is ticked by hand only.
  const open = shown.filter((item) => takeable(item) && item.answeredBy === null);
  const left = items.data.items.filter((item) => item.leftOut !== null);
  const answered = shown.filter((item) => item.answeredBy !== null).length;
  const all = open.length > 0 && open.every((item) => ticked.has(item.id));
  return (
    <>
      <div className="flex h-[56px] items-center gap-4">
        <h1 className="text-title font-semibold tracking-[-0.018em]">{source.name}</h1>
        <span className="text-ink-3">
          keyword list, {plural(items.data.items.length - left.length, 'phrase')}, {count(source.taken)} taken
          {answered > 0 ? `, ${plural(answered, 'phrase')} answered already` : ''}
        </span>
        <a className="act quiet brackets ml-auto text-small" href={`/api/sources/${id}/written-back`} download>
          With what was made
        </a>
      </div>
      <p className="-mx-8 border-t border-rule bg-sheet px-8 py-1.5 text-proc">
        Leave out phrases with{' '}
        <ExcludeWord
          exclude={settings.exclude}
          onChange={(exclude) => change.mutate({ ...settings, exclude })}
          label="Leave out phrases with"
        />
        .{change.isError ? <Trouble>{inWords(change.error)}</Trouble> : null}
      </p>
      <div className="-mx-8 grid flex-1 grid-cols-[808fr_472fr] border-t border-ink">
        <div className="flex min-w-0 flex-col px-8">
          <div
            className={`grid h-9 items-center border-b border-ink text-small text-ink-3 ${measured ? MEASURED : PLAIN}`}
          >
            <Tick
              label="All that are shown"
              state={all ? true : picked.length > 0 ? 'some' : false}
              onChange={(on) => setTicked(on ? new Set(open.map((item) => item.id)) : new Set())}
            />
            <input
              className={`field !h-7 !border-0 ${measured ? '!w-full' : '!w-72'}`}
              placeholder="Phrases with…"
              aria-label="Show phrases with"
              value={filter}
              onChange={(event) => {
                setFilter(event.target.value);
                setAt(0);
              }}
            />
            {measured ? (
              <>
                {(Object.keys(ORDERS) as Order[]).map((one) => (
                  <span key={one} className="text-right">
                    <button
                      type="button"
                      className={`brackets ${order === one ? 'hl hl-full text-ink' : ''}`}
                      aria-pressed={order === one}
                      title={ORDERS[one].does}
                      onClick={() => {
                        setOrder(order === one ? null : one);
                        setAt(0);
                      }}
                    >
                      {ORDERS[one].says}
                    </button>
                  </span>
                ))}
                <span />
              </>
            ) : null}
            <span>what was made of it</span>
          </div>
          {items.data.items.length === 0 ? <Empty>No phrase yet. Paste or type some on the right.</Empty> : null}
          {items.data.items.length > 0 && shown.length === 0 ? <Empty>No phrase holds “{filter}”.</Empty> : null}
          <PhraseRows
            items={shown}
            measured={measured}
            ticked={ticked}
            at={at}
            takeable={takeable}
            onToggle={toggle}
            onAt={setAt}
          />
        </div>
        <div className="border-l border-rule-strong bg-sheet px-6">
          <Head title="Paste more" right="any mixture of commas, tabs and lines" />
          <div className="pt-3">
            <Paste into={() => Promise.resolve(id)} autoFocus={items.data.items.length === 0} />
          </div>
          <LeftOut source={id} items={left} />
        </div>
      </div>
      <ActionBar
        keys={
          <>
            <span>
              <Key>J</Key> <Key>K</Key> phrase
            </span>
            <span>
              <Key>Space</Key> tick
            </span>
          </>
        }
      >
        <TakeButton
          into={into}
          items={picked}
          says={
            picked.length === 0 ? 'Take the ticked' : `Take ${picked.length} as brief${picked.length === 1 ? '' : 's'}`
          }
        />
        <IntoWords into={into} n={picked.length} />
        <TakenHere into={into} />
      </ActionBar>
    </>
  );
}

/** Thousands of phrases as a virtual list: only what is in view is drawn. */
function PhraseRows({
  items,
  measured,
  ticked,
  at,
  takeable,
  onToggle,
  onAt,
}: {
  items: readonly Item[];
  /** Whether anything is known of any phrase. */
  measured: boolean;
  ticked: ReadonlySet<string>;
  at: number;
  takeable: (item: Item) => boolean;
  onToggle: (item: Item) => void;
  onAt: (at: number) => void;
}) {
  const frame = useRef<HTMLDivElement>(null);
  const rows = useVirtualizer({
    count: items.length,
    getScrollElement: () => frame.current,
    estimateSize: () => ROW,
    overscan: 12,
  });
  useEffect(() => {
    if (items.length > 0) rows.scrollToIndex(Math.min(at, items.length - 1));
  }, [at, items.length, rows]);
  return (
    <div
      ref={frame}
      className="min-h-[320px] overflow-auto"
      style={{ height: 'calc(100vh - 294px)' }}
      tabIndex={0}
      role="group"
      aria-label="Phrases of the list"
    >
      <ul className="relative" style={{ height: rows.getTotalSize() }}>
        {rows.getVirtualItems().map(({ index, start }) => {
          const item = items[index]!;
          const open = takeable(item);
          const last = item.taken.at(-1);
          return (
            // biome-ignore lint/a11y/useKeyWithClickEvents: J, K and Space do the same
            <li
              key={item.id}
              className={`row absolute inset-x-0 grid h-6 items-center ${measured ? MEASURED : PLAIN} ${ticked.has(item.id) ? 'picked' : ''} ${index === at ? 'brackets bracketed' : ''}`}
              style={{ transform: `translateY(${start}px)` }}
              onClick={(event) => {
                // Ticks and links in the row do their own.
                if (event.target instanceof Element && event.target.closest('button, a')) return;
                onAt(index);
                onToggle(item);
              }}
            >
              {open ? (
                <Tick label={item.subject} state={ticked.has(item.id)} onChange={() => onToggle(item)} />
              ) : (
                <span />
              )}
              <span className={`truncate ${open ? '' : 'text-ink-3'}`} title={item.subject}>
                {item.subject}
              </span>
              {measured ? (
                <>
                  {(Object.keys(ORDERS) as Order[]).map((one) => {
                    const figure = ORDERS[one].of(item);
                    return (
                      <span key={one} className={`fig text-right ${open ? '' : 'text-ink-3'}`}>
                        {figure === null ? '' : count(Math.round(figure))}
                      </span>
                    );
                  })}
                  <span />
                </>
              ) : null}
              {!last && item.answeredBy ? (
                <Link
                  to={`/articles/${item.answeredBy.id}`}
                  className="brackets truncate text-small text-ink-3 hover:text-ink"
                  title={item.answeredBy.title}
                >
                  covered by <span className="font-read">{atColon(item.answeredBy.title)}</span>
                </Link>
              ) : last ? (
                <Link
                  to={`/pipelines/${last.pipeline}?show=briefs&brief=${last.brief}`}
                  className="brackets flex items-center gap-2 text-small text-ink-3 hover:text-ink"
                >
                  <Mark state={stateOf(last.standing)} /> {saysOf(last.standing)}
                  {item.taken.length > 1 ? `, and ${item.taken.length - 1} more` : ''}
                </Link>
              ) : (
                <span />
              )}
            </li>
          );
        })}
      </ul>
    </div>
  );
}
