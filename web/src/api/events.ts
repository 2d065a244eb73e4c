import { ChangeEvent } from '@grivo/contract';
import { useEffect } from 'react';
import { z } from 'zod';
import { create } from 'zustand';
import { queryClient, touched } from './queries.ts';

/** Whether changes arrive; while they do not, the screen says so and goes on with what it has. */
export const useLine = create<{ open: boolean; put: (open: boolean) => void }>((set) => ({
  open: true,
  put: (open) => set({ open }),
}));

const GATHER_MS = 250;
const Changes = z.array(ChangeEvent);

/** Listens to what changed, for as long as it is mounted. Many changes in a moment are read again once. */
export function useChanges(): void {
  useEffect(() => {
    const source = new EventSource('/api/events');
    const waiting = new Map<string, z.infer<typeof ChangeEvent>>();
    let timer: ReturnType<typeof setTimeout> | null = null;
    const gather = () => {
      timer = null;
      const events = [...waiting.values()];
      waiting.clear();
      for (const { noun, nounId } of events) touched(noun, nounId);
    };
    source.addEventListener('open', () => useLine.getState().put(true));
    source.addEventListener('error', () => {
      useLine.getState().put(false);
      // A stream that is refused has lost its session: asked for, that leads to signing in.
      if (source.readyState === EventSource.CLOSED) void queryClient.invalidateQueries({ queryKey: ['session'] });
    });
    source.addEventListener('all', () => {
      useLine.getState().put(true);
      void queryClient.invalidateQueries({ predicate: (query) => query.queryKey[0] !== 'session' });
    });
    source.addEventListener('change', (event) => {
      for (const change of Changes.parse(JSON.parse(String((event as MessageEvent).data))))
        waiting.set(`${change.noun}/${change.nounId}`, change);
      timer ??= setTimeout(gather, GATHER_MS);
    });
    return () => {
      source.close();
      if (timer) clearTimeout(timer);
    };
  }, []);
}
