import { useEffect } from 'react';
import { queryClient, read } from '../api/queries.ts';

/** A pointer that only passes over is gone by then; one that presses is still there. */
const RESTS_MS = 100;

/** Reads an article and its page before they are asked for, so that they stand there at once. */
export function readAhead(id: string): void {
  void import('./ArticlePage.tsx');
  void queryClient.prefetchQuery(read.article(id));
}

/** The same for the article a list stands at, or the one that comes next, once it rests there. */
export function useReadAhead(id: string | null): void {
  useEffect(() => {
    if (id === null) return;
    const rest = setTimeout(() => readAhead(id), RESTS_MS);
    return () => clearTimeout(rest);
  }, [id]);
}
