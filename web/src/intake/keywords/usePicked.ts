import { useMutation } from '@tanstack/react-query';
import { useCallback, useState } from 'react';
import { call } from '../../api/call.ts';
import { queryClient } from '../../api/queries.ts';
import { useTakingInto } from '../TakeInto.tsx';
import { answerOf, itemsOf, type Unit } from './units.ts';
import type { Units } from './useUnits.ts';

/** What is ticked of a list, taken into a pipeline or left out. */
export function usePicked(id: string, { units, grouped }: Pick<Units, 'units' | 'grouped'>) {
  const [ticked, setTicked] = useState<ReadonlySet<string>>(new Set());
  const into = useTakingInto(id, 'keywords', () => setTicked(new Set()));
  const taker = into.pipeline?.id;
  const takeable = useCallback(
    (unit: Unit) => !itemsOf(unit).some(({ taken }) => taken.some((one) => one.pipeline === taker)),
    [taker],
  );
  // What an article of ours answers is ticked by hand only.
  const isOpen = useCallback((unit: Unit) => takeable(unit) && answerOf(unit) === null, [takeable]);
  const toggle = (unit: Unit) => {
    if (!takeable(unit)) return;
    const next = new Set(ticked);
    if (!next.delete(unit.id)) next.add(unit.id);
    setTicked(next);
  };
  const picked = units.filter((unit) => ticked.has(unit.id) && takeable(unit));
  const chosen = grouped
    ? { groups: picked.map((unit) => itemsOf(unit).map((item) => item.id)) }
    : { items: picked.map((unit) => unit.id) };
  const leave = useMutation({
    mutationFn: () =>
      call('POST', `/sources/${id}/offer`, {
        body: { items: picked.flatMap((unit) => itemsOf(unit).map((item) => item.id)), offer: false },
      }),
    onSuccess: () => {
      setTicked(new Set());
      void queryClient.invalidateQueries({ queryKey: ['items', id] });
    },
  });
  const canTake = picked.length > 0 && into.pipeline !== undefined && !into.take.isPending;
  return { ticked, setTicked, into, takeable, isOpen, toggle, picked, chosen, leave, canTake };
}

export type Picked = ReturnType<typeof usePicked>;
