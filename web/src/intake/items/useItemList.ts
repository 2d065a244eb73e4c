import type { Item, SourceWhole } from '@grivo/contract';
import { useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { useSearchParams } from 'react-router';
import { read } from '../../api/queries.ts';
import { useTakingInto } from '../TakeInto.tsx';
import { partsOf, SHOWS, type Show, standsAs } from './show.ts';

/** The items of a source: the part that is shown, the one that is looked at, kept in the address, and what is ticked. */
export function useItemList(source: SourceWhole) {
  const [search, setSearch] = useSearchParams();
  const listed = useQuery(read.items(source.id));
  const items = useMemo(() => listed.data?.items ?? [], [listed.data]);
  const [ticked, setTicked] = useState<ReadonlySet<string>>(new Set());
  const tickNone = () => setTicked(new Set());
  const into = useTakingInto(source.id, source.kind, tickNone);
  const pipeline = into.pipeline?.id;
  const parts = useMemo(() => partsOf(items, pipeline), [items, pipeline]);
  const asked = search.get('show') as Show | null;
  const show: Show = asked && SHOWS.includes(asked) ? asked : parts.new.length > 0 ? 'new' : 'all';
  const shown = parts[show];
  const chosen = shown.find(({ id }) => id === search.get('item')) ?? null;
  const takeable = (item: Item) => standsAs(item, pipeline) === 'new';
  const open = shown.filter(takeable);
  const all = open.length > 0 && open.every(({ id }) => ticked.has(id));
  const choose = (id: string) => setSearch({ ...(asked ? { show: asked } : {}), item: id }, { replace: true });
  return {
    listed,
    items,
    into,
    parts,
    show,
    setShow: (part: Show) => setSearch({ show: part }, { replace: true }),
    shown,
    chosen,
    choose,
    /** To the one below, or above. */
    step: (by: number) => {
      const at = shown.findIndex(({ id }) => id === chosen?.id);
      const next = shown[at < 0 ? 0 : at + by];
      if (next) choose(next.id);
    },
    takeable,
    /** Those shown that can be taken. */
    open,
    ticked,
    /** Whether all of them are ticked. */
    all,
    toggle: (id: string) => {
      const next = new Set(ticked);
      if (!next.delete(id)) next.add(id);
      setTicked(next);
    },
    tickAll: () => setTicked(all ? new Set() : new Set([...ticked, ...open.map(({ id }) => id)])),
    tickNone,
  };
}

export type ItemList = ReturnType<typeof useItemList>;
