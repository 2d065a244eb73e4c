import type { Item, SourceWhole } from '@grivo/contract';
import { useQuery } from '@tanstack/react-query';
import { type ReactNode, useMemo, useState } from 'react';
import { useSearchParams } from 'react-router';
import { inWords } from '../../api/call.ts';
import { read } from '../../api/queries.ts';
import { ActionBar, Button, Loading, Tick, Trouble } from '../../design/index.ts';
import { useViewKeys } from '../../shell/keys.ts';
import { useNow } from '../../shell/useNow.ts';
import { count, plural } from '../../words/figures.ts';
import { moment } from '../../words/time.ts';
import { LookedHere, Looks } from '../LookWords.tsx';
import { SourceHead } from '../SourceHead.tsx';
import { IntoWords, TakeButton, TakenHere, useTakingInto } from '../TakeInto.tsx';
import { useLook } from '../useSource.ts';
import { ItemRows } from './ItemRows.tsx';
import { LeaveOut } from './LeaveOut.tsx';
import { partsOf, SHOWS, type Show, standsAs } from './show.ts';
import { WouldBeRead } from './WouldBeRead.tsx';

export interface ItemsSourceProps {
  source: SourceWhole;
  /** What it is, after its name: 'feed', 'catalogue'. */
  says: string;
  /** What one item is called. */
  one: string;
  /** How it is looked at, as one sentence with words that can be changed. */
  sentence: ReactNode;
  /** What else can be done with it, in its head. */
  actions?: ReactNode;
  /** What stands between sentence and items: a form, what is wrong. */
  above?: ReactNode;
  /** What stands beside the items when none is chosen. */
  aside?: ReactNode;
  /** What stands in place of an item's text. */
  reads?: (item: Item) => ReactNode;
  /** Whether there is anything outside to look at. */
  looks?: boolean;
  /** What to do when nothing is there yet. */
  empty: ReactNode;
}

/** A source as its sentence, its items with ticks, what would be read of one, and the bar that takes what is ticked. */
export function ItemsSource(props: ItemsSourceProps) {
  const { source, says, one, sentence, actions, above, aside, reads, looks = true, empty } = props;
  const [search, setSearch] = useSearchParams();
  const slots = useQuery(read.slots(null, 7));
  const now = useNow(slots.data?.now, slots.data?.speed) ?? Date.now();
  const look = useLook(source.id);
  const listed = useQuery(read.items(source.id));
  const items = useMemo(() => listed.data?.items ?? [], [listed.data]);
  const [ticked, setTicked] = useState<ReadonlySet<string>>(new Set());
  const into = useTakingInto(source.id, source.kind, () => setTicked(new Set()));
  const pipeline = into.pipeline?.id;
  const parts = useMemo(() => partsOf(items, pipeline), [items, pipeline]);
  const asked = search.get('show') as Show | null;
  const show: Show = asked && SHOWS.includes(asked) ? asked : parts.new.length > 0 ? 'new' : 'all';
  const shown = parts[show];
  const chosen = shown.find(({ id }) => id === search.get('item')) ?? null;
  const takeable = (item: Item) => standsAs(item, pipeline) === 'new';
  const open = shown.filter(takeable);
  const all = open.length > 0 && open.every(({ id }) => ticked.has(id));
  const toggle = (id: string) => {
    const next = new Set(ticked);
    if (!next.delete(id)) next.add(id);
    setTicked(next);
  };
  const tickAll = () => setTicked(all ? new Set() : new Set([...ticked, ...open.map(({ id }) => id)]));
  const choose = (id: string) => setSearch({ ...(asked ? { show: asked } : {}), item: id }, { replace: true });
  const step = (by: number) => {
    const at = shown.findIndex(({ id }) => id === chosen?.id);
    const next = shown[at < 0 ? 0 : at + by];
    if (next) choose(next.id);
  };
  const others = open.filter(({ id }) => !ticked.has(id)).map(({ id }) => id);
  const can = ticked.size > 0 && into.pipeline !== undefined && !into.take.isPending;
  useViewKeys({
    j: () => step(1),
    k: () => step(-1),
    ' ': chosen && takeable(chosen) ? () => toggle(chosen.id) : null,
    a: open.length > 0 ? tickAll : null,
    t: can ? () => into.take.mutate({ items: [...ticked] }) : null,
    l: looks && !look.isPending ? () => look.mutate() : null,
  });
  return (
    <>
      <SourceHead
        source={source}
        says={
          <>
            {says}
            {looks
              ? source.lastLook === null
                ? ', not looked at yet'
                : `, looked at ${moment(source.lastLook, now)}`
              : ''}
          </>
        }
      >
        {actions}
        {looks ? (
          <Button look="line" hint="L" busy={look.isPending ? 'Looking' : null} onClick={() => look.mutate()}>
            {source.lastLook === null ? 'Look at it' : 'Look again'}
          </Button>
        ) : null}
      </SourceHead>
      <div className="-mx-8 border-t border-ink bg-sheet px-8 py-2 text-proc">{sentence}</div>
      <LookedHere looked={look.data} error={look.isError ? inWords(look.error) : null} />
      {source.trouble && !look.data ? <Trouble>{source.trouble}</Trouble> : null}
      {above}
      <div className="-mx-8 grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)_minmax(280px,360px)] border-t border-ink">
        <div className="flex min-h-[320px] min-w-0 flex-col px-8">
          <div className="flex h-8 items-center gap-4 border-b border-rule text-small">
            {open.length > 0 ? (
              <Tick
                label={`All ${open.length}`}
                state={all ? true : ticked.size > 0 ? 'some' : false}
                onChange={tickAll}
              />
            ) : (
              <span className="w-3" />
            )}
            {SHOWS.map((part) => (
              <button
                key={part}
                type="button"
                aria-pressed={part === show}
                disabled={parts[part].length === 0 && part !== show}
                className={`brackets disabled:text-graphite ${part === show ? 'hl hl-full font-semibold' : 'text-ink-2'}`}
                onClick={() => setSearch({ show: part }, { replace: true })}
              >
                {part} <span className="fig">{count(parts[part].length)}</span>
              </button>
            ))}
          </div>
          {listed.isPending ? <Loading rows={10} /> : null}
          {listed.isError ? <Trouble>{inWords(listed.error)}</Trouble> : null}
          {listed.data && items.length === 0 ? <div className="py-3 text-ink-2">{empty}</div> : null}
          {items.length > 0 ? (
            <ItemRows
              items={shown}
              label={`Items of ${source.name}`}
              ticked={ticked}
              takeable={takeable}
              chosen={chosen?.id ?? null}
              onToggle={toggle}
              onChoose={choose}
            />
          ) : null}
        </div>
        <aside className="min-h-0 overflow-auto border-l border-rule px-6 pt-2" aria-label="Beside">
          {chosen ? (
            <WouldBeRead item={chosen} source={source.id} into={into} {...(reads ? { reads: reads(chosen) } : {})} />
          ) : (
            <>
              {aside}
              <Looks source={source.id} now={now} />
            </>
          )}
        </aside>
      </div>
      <ActionBar>
        <TakeButton
          into={into}
          chosen={ticked.size === 0 ? null : { items: [...ticked] }}
          says={
            ticked.size === 0
              ? 'Take what is ticked'
              : `Take ${plural(ticked.size, one, one === 'entry' ? 'entries' : `${one}s`)}`
          }
        />
        <IntoWords into={into} n={ticked.size} />
        <LeaveOut
          source={source.id}
          ticked={[...ticked]}
          others={ticked.size > 0 ? others : []}
          onDone={() => setTicked(new Set())}
        />
        <TakenHere into={into} />
      </ActionBar>
    </>
  );
}
