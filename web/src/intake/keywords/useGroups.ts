import type { Item, KeywordSettings } from '@grivo/contract';
import { useEffect, useState } from 'react';
import type { Grouped, Grouping } from './group.worker.ts';

export interface Groups {
  /** Null while they are being found, or where each phrase stands by itself. */
  groups: Grouped[] | null;
  busy: boolean;
}

/** The groups of a list, found in a worker so that the page goes on; begun anew when the list or the closeness changes. */
export function useGroups(items: readonly Item[], closeness: KeywordSettings['group'], language: string): Groups {
  const [found, setFound] = useState<{ of: readonly Item[]; how: string; groups: Grouped[] | null } | null>(null);
  const grouped = closeness !== 'each' && items.length > 0;
  useEffect(() => {
    if (closeness === 'each' || items.length === 0) return;
    const worker = new Worker(new URL('./group.worker.ts', import.meta.url), { type: 'module' });
    worker.onmessage = ({ data }: MessageEvent<Grouped[]>) => {
      setFound({ of: items, how: closeness, groups: data });
      worker.terminate();
    };
    // What cannot be grouped is shown phrase by phrase.
    worker.onerror = () => setFound({ of: items, how: closeness, groups: null });
    const packed = pack(items);
    worker.postMessage({ ...packed, closeness, language } satisfies Grouping, [
      packed.volumes.buffer,
      packed.results.buffer,
      packed.ends.buffer,
    ]);
    return () => worker.terminate();
  }, [items, closeness, language]);
  const fits = found !== null && found.of === items && found.how === closeness;
  return { groups: grouped && fits ? found.groups : null, busy: grouped && !fits };
}

function pack(items: readonly Item[]): Pick<Grouping, 'phrases' | 'volumes' | 'results' | 'ends'> {
  const results = new Int32Array(items.reduce((sum, item) => sum + item.results.length, 0));
  const ends = new Int32Array(items.length);
  let at = 0;
  for (const [i, item] of items.entries()) {
    results.set(item.results, at);
    at += item.results.length;
    ends[i] = at;
  }
  return {
    phrases: items.map(({ subject }) => subject).join('\n'),
    volumes: Float64Array.from(items, ({ volume }) => volume ?? Number.NaN),
    results,
    ends,
  };
}
