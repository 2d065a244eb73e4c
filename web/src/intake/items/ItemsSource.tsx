import type { Item, SourceWhole } from '@grivo/contract';
import { useQuery } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import { inWords } from '../../api/call.ts';
import { read } from '../../api/queries.ts';
import { ActionBar, Button, Loading, Tick, Trouble } from '../../design/index.ts';
import { useViewKeys } from '../../shell/keys.ts';
import { useNow } from '../../shell/useNow.ts';
import { count, plural } from '../../words/figures.ts';
import { moment } from '../../words/time.ts';
import { LookedHere, Looks } from '../LookWords.tsx';
import { SourceHead } from '../SourceHead.tsx';
import { IntoWords, TakeButton, TakenHere } from '../TakeInto.tsx';
import { useLook } from '../useSource.ts';
import { ItemRows } from './ItemRows.tsx';
import { LeaveOut } from './LeaveOut.tsx';
import { SHOWS } from './show.ts';
import { type ItemList, useItemList } from './useItemList.ts';
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
  const { source, says, sentence, actions, above, aside, reads, looks = true } = props;
  const slots = useQuery(read.slots(null, 7));
  const now = useNow(slots.data?.now, slots.data?.speed) ?? Date.now();
  const look = useLook(source.id);
  const list = useItemList(source);
  const { into, chosen, ticked, open } = list;
  const can = ticked.size > 0 && into.pipeline !== undefined && !into.take.isPending;
  useViewKeys({
    j: () => list.step(1),
    k: () => list.step(-1),
    ' ': chosen && list.takeable(chosen) ? () => list.toggle(chosen.id) : null,
    a: open.length > 0 ? list.tickAll : null,
    t: can ? () => into.take.mutate({ items: [...ticked] }) : null,
    l: looks && !look.isPending ? () => look.mutate() : null,
  });
  const looked = source.lastLook === null ? ', not looked at yet' : `, looked at ${moment(source.lastLook, now)}`;
  return (
    <>
      <SourceHead
        source={source}
        says={
          <>
            {says}
            {looks ? looked : ''}
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
        <Listed {...props} list={list} />
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
      <ItemsBar {...props} list={list} />
    </>
  );
}

type WithList = ItemsSourceProps & { list: ItemList };

/** The items of the part that is shown, each with its tick. */
function Listed({ source, empty, list }: WithList) {
  const { listed, items, shown, open, ticked, chosen } = list;
  return (
    <div className="flex min-h-[320px] min-w-0 flex-col px-8">
      <div className="flex h-8 items-center gap-4 border-b border-rule text-small">
        {open.length > 0 ? (
          <Tick
            label={`All ${open.length}`}
            state={list.all ? true : ticked.size > 0 ? 'some' : false}
            onChange={list.tickAll}
          />
        ) : (
          <span className="w-3" />
        )}
        {SHOWS.map((part) => (
          <button
            key={part}
            type="button"
            aria-pressed={part === list.show}
            disabled={list.parts[part].length === 0 && part !== list.show}
            className={`brackets disabled:text-graphite ${part === list.show ? 'hl hl-full font-semibold' : 'text-ink-2'}`}
            onClick={() => list.setShow(part)}
          >
            {part} <span className="fig">{count(list.parts[part].length)}</span>
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
          takeable={list.takeable}
          chosen={chosen?.id ?? null}
          onToggle={list.toggle}
          onChoose={list.choose}
        />
      ) : null}
    </div>
  );
}

function ItemsBar({ source, one, list: { into, ticked, open, tickNone } }: WithList) {
  const others = open.filter(({ id }) => !ticked.has(id)).map(({ id }) => id);
  const many = one === 'entry' ? 'entries' : `${one}s`;
  return (
    <ActionBar>
      <TakeButton
        into={into}
        chosen={ticked.size === 0 ? null : { items: [...ticked] }}
        says={ticked.size === 0 ? 'Take what is ticked' : `Take ${plural(ticked.size, one, many)}`}
      />
      <IntoWords into={into} n={ticked.size} />
      <LeaveOut source={source.id} ticked={[...ticked]} others={ticked.size > 0 ? others : []} onDone={tickNone} />
      <TakenHere into={into} />
    </ActionBar>
  );
}
