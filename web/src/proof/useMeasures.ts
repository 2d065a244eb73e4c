import { ArticleSources, type ArticleWhole } from '@grivo/contract';
import { type ArticleDocument, type Block, changedFrom, type MeasuredSource } from '@grivo/core';
import { useQuery } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { call } from '../api/call.ts';
import type { Measured, ToMeasure } from './measure.worker.ts';

export type Measures = Pick<ArticleWhole, 'measures' | 'doubts'> & {
  /** Every passage the article was made from, once they are read. */
  sources: readonly MeasuredSource[];
};

const PAUSE_MS = 120;

/** The measures of an article while it is typed, reckoned in a worker; those of the server until the first are there. */
export function useMeasures(
  article: Pick<ArticleWhole, 'id' | 'measures' | 'doubts' | 'house'>,
  document: ArticleDocument,
): Measures {
  const against = useQuery({
    queryKey: ['article', article.id, 'sources'],
    queryFn: () => call('GET', `/articles/${article.id}/sources`, { answer: ArticleSources }),
    staleTime: Number.POSITIVE_INFINITY,
  }).data;
  const sources = against?.sources;
  const [found, setFound] = useState<Pick<Measures, 'measures' | 'doubts'> | null>(null);
  const worker = useRef<Worker | null>(null);
  const sent = useRef(0);
  /** The body the worker has. */
  const there = useRef<readonly Block[]>([]);
  const { language } = document;
  const { house } = article;
  useEffect(() => {
    if (!against) return;
    const { sources, beside } = against;
    const made = new Worker(new URL('./measure.worker.ts', import.meta.url), { type: 'module' });
    worker.current = made;
    there.current = [];
    made.onmessage = ({ data: { n, measures, doubts } }: MessageEvent<Measured>) => {
      // Only the newest counts: what was typed since is on its way.
      if (n === sent.current) setFound({ measures, doubts });
    };
    made.postMessage({ kind: 'sources', sources, beside, language } satisfies ToMeasure);
    return () => {
      worker.current = null;
      made.terminate();
    };
  }, [against, language]);
  useEffect(() => {
    if (!sources) return;
    // A word is reckoned once it is typed, not letter by letter.
    const soon = setTimeout(() => {
      if (!worker.current) return;
      sent.current++;
      const changed = changedFrom(there.current, document);
      there.current = document.body;
      worker.current.postMessage({ kind: 'article', n: sent.current, changed, house } satisfies ToMeasure);
    }, PAUSE_MS);
    return () => clearTimeout(soon);
  }, [document, sources, house]);
  const { measures, doubts } = found ?? article;
  return { measures, doubts, sources: sources ?? [] };
}
