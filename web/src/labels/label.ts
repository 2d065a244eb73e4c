import { useQuery } from '@tanstack/react-query';
import { create } from 'zustand';
import { read } from '../api/queries.ts';

const KEY = 'grivo.label';

/** The label everything is looked at by, on this screen until somebody chooses another. */
const useKept = create<{ label: string | null; only: (label: string | null) => void }>((set) => ({
  label: localStorage.getItem(KEY),
  only: (label) => {
    if (label === null) localStorage.removeItem(KEY);
    else localStorage.setItem(KEY, label);
    set({ label });
  },
}));

/** The label that is chosen, by name too; one that is gone is none. */
export function useLabel(): { label: string | null; name: string | null; only: (label: string | null) => void } {
  const { label, only } = useKept();
  const labels = useQuery(read.labels()).data?.labels;
  const found = labels?.find(({ id }) => id === label);
  // Until they are known it is believed: a list must not show everything for a moment.
  return { label: labels && !found ? null : label, name: found?.name ?? null, only };
}
