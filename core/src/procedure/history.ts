/** What something was, is, and would be again: every change can be taken back and done again. */
export interface History<T> {
  readonly past: readonly T[];
  readonly now: T;
  readonly future: readonly T[];
}

/** Changes that can be taken back. */
const MOST_PAST = 500;

export function beginHistory<T>(now: T): History<T> {
  return { past: [], now, future: [] };
}

/** A change ends what had been taken back. */
export function changeHistory<T>({ past, now }: History<T>, next: T): History<T> {
  return { past: [...past.slice(1 - MOST_PAST), now], now: next, future: [] };
}

/** @returns the same when there is nothing to take back */
export function undoHistory<T>(history: History<T>): History<T> {
  const back = history.past.at(-1);
  if (history.past.length === 0 || back === undefined) return history;
  return { past: history.past.slice(0, -1), now: back, future: [history.now, ...history.future] };
}

/** @returns the same when nothing was taken back */
export function redoHistory<T>(history: History<T>): History<T> {
  const [next, ...future] = history.future;
  if (history.future.length === 0 || next === undefined) return history;
  return { past: [...history.past, history.now], now: next, future };
}
