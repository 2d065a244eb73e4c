import type { Events } from './machine.ts';

/** Where one run of a step stands. Only `ready` rows carry a lane, only `running` rows a holder. */
export type StepState = 'ready' | 'running' | 'waiting' | 'held' | 'stopped' | 'done' | 'cancelled';

/** States of runs that have not ended. */
export const OPEN_RUNS: readonly StepState[] = ['ready', 'running', 'waiting', 'held', 'stopped'];

/** Everything that happens to a run of a step. Nothing else in the product changes its state. */
export const RUN = {
  claim: { from: ['ready'], to: 'running' },
  /** Its worker died, or gave it back. */
  'give back': { from: ['running'], to: 'ready' },
  end: { from: ['running'], to: 'done' },
  /** It waits for a time: a retry, a slot, the next month. */
  pause: { from: ['running'], to: 'waiting' },
  wake: { from: ['waiting'], to: 'ready' },
  hold: { from: ['running'], to: 'held' },
  /** A person decided. */
  pass: { from: ['held'], to: 'done' },
  fail: { from: ['running'], to: 'stopped' },
  /** Its brief is stopped, by a person or for taking too long. */
  stop: { from: ['ready', 'running', 'waiting'], to: 'stopped' },
  'go on': { from: ['stopped'], to: 'ready' },
  cancel: { from: ['ready', 'running', 'waiting', 'held', 'stopped'], to: 'cancelled' },
} as const satisfies Events<StepState, string>;
export type RunEvent = keyof typeof RUN;
