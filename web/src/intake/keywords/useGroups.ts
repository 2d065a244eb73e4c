import type { Item, KeywordSettings } from '@grivo/contract';
import { useEffect, useState } from 'react';
import type { Grouping } from './group.worker.ts';

export interface Groups {
  /** Indexes of items; null while they are being found, or where each phrase stands by itself. */
  groups: number[][] | null;
  busy: boolean;
}

/** The groups of a list, found in a worker so that the page goes on; begun anew when the list or the closeness changes. */
export function useGroups(
  items: readonly Item[],
  addresses: readonly string[],
  closeness: KeywordSettings['group'],
  language: string,
): Groups {
  const [found, setFound] = useState<{ of: readonly Item[]; how: string; groups: number[][] } | null>(null);
  const grouped = closeness !== 'each' && items.length > 0;
  useEffect(() => {
    if (closeness === 'each' || items.length === 0) return;
    const worker = new Worker(new URL('./group.worker.ts', import.meta.url), { type: 'module' });
    worker.onmessage = ({ data }: MessageEvent<number[][]>) => {
      setFound({ of: items, how: closeness, groups: data });
      worker.terminate();
    };
    const phrases = items.map(({ subject, results }) => ({
      phrase: subject,
      results: results.map((at) => addresses[at]!),
    }));
    worker.postMessage({ phrases, closeness, language } satisfies Grouping);
    return () => worker.terminate();
  }, [items, addresses, closeness, language]);
  const fits = found !== null && found.of === items && found.how === closeness;
  return { groups: grouped && fits ? found.groups : null, busy: grouped && !fits };
}
