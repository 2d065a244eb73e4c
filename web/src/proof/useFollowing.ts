import { startTransition, useCallback, useEffect, useRef } from 'react';

/** What follows the letters waits for a pause between them, and no longer than that. */
const PAUSE_MS = 90;
const LONGEST_MS = 400;

/**
 * Lets what stands beside a text follow it when there is time: the letters themselves are on the page first.
 * @returns to be told of each letter
 */
export function useFollowing(follow: () => void): () => void {
  const timer = useRef<ReturnType<typeof setTimeout> | null>(null);
  const since = useRef(0);
  const does = useRef(follow);
  does.current = follow;
  useEffect(() => () => clearTimeout(timer.current ?? undefined), []);
  return useCallback(() => {
    const now = performance.now();
    if (timer.current === null) since.current = now;
    else clearTimeout(timer.current);
    const wait = Math.max(0, Math.min(PAUSE_MS, since.current + LONGEST_MS - now));
    timer.current = setTimeout(() => {
      timer.current = null;
      startTransition(() => does.current());
    }, wait);
  }, []);
}
