import type { Item } from '@grivo/contract';
import { languageOf, opportunityBy } from '@grivo/core';
import { useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { read } from '../../api/queries.ts';
import type { Settings } from '../LookWords.tsx';
import { itemsOf, type Order, ordered, unitsOf } from './units.ts';
import { useGroups } from './useGroups.ts';

const NONE: readonly Item[] = [];

/** Phrases enough to know a list's language by. */
const ENOUGH = 2_000;

/** What a list shows: its phrases or groups of them, those that have some words, in the order chosen. */
export function useUnits(id: string, settings: Settings<'keywords'>) {
  const held = useQuery(read.items(id));
  const all = held.data?.items ?? NONE;
  const [filter, setFilter] = useState('');
  const [chosenOrder, setOrder] = useState<Order | 'none' | null>(null);
  const offered = useMemo(() => all.filter((item) => item.leftOut === null), [all]);
  const language = useMemo(() => {
    const some = offered.slice(0, ENOUGH).map(({ subject }) => subject);
    return languageOf(some.join(' ')) ?? 'en';
  }, [offered]);
  const { groups, busy } = useGroups(offered, settings.group, language);
  const grouped = groups !== null;
  const units = useMemo(
    () => unitsOf(offered, groups, opportunityBy(settings.opportunity)),
    [offered, groups, settings.opportunity],
  );
  const measured = useMemo(() => all.some((item) => item.volume !== null || item.difficulty !== null), [all]);
  // Groups are gone through from the most promising on; phrases stay as they were given until an order is chosen.
  const order = chosenOrder === 'none' ? null : (chosenOrder ?? (grouped && measured ? 'opportunity' : null));
  const shown = useMemo(() => {
    const words = filter.trim().toLowerCase();
    const some = units.filter((unit) => itemsOf(unit).some(({ subject }) => subject.toLowerCase().includes(words)));
    return ordered(some, order);
  }, [units, filter, order]);
  return { held, all, offered, units, shown, grouped, measured, busy, filter, setFilter, order, setOrder };
}

export type Units = ReturnType<typeof useUnits>;
