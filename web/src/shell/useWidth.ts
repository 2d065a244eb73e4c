import { useSyncExternalStore } from 'react';

function watch(tell: () => void): () => void {
  window.addEventListener('resize', tell);
  return () => window.removeEventListener('resize', tell);
}

/** The width of the page in pixels, as it is now. */
export function useWidth(): number {
  return useSyncExternalStore(watch, () => document.documentElement.clientWidth);
}
