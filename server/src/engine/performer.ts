import type { Failure, Outcome, Step, StepKindName, StepOf } from '@grivo/core';
import type { Write } from '../ground/store/write.ts';
import type { BriefState, RunState } from './briefState.ts';

export type Fields = Readonly<Record<string, unknown>>;

/** How the work on one step ended. */
export type StepResult =
  | { kind: 'done'; fields: Fields; outcome?: Outcome; writes?: Write[] }
  /** Done, and waits for a person to look; `outcome` is what passing it means. */
  | { kind: 'held'; fields: Fields; outcome?: Outcome; writes?: Write[] }
  | { kind: 'failed'; failure: Failure }
  /** Comes back at a moment of the desk clock; `forSlot` when the article is ready and only waits to go out. */
  | { kind: 'at'; desk: number; forSlot: boolean; fields?: Fields }
  /** Comes back after real milliseconds. */
  | { kind: 'later'; inMs: number };

export interface StepContext {
  brief: BriefState;
  run: RunState;
  /** The service it holds a place at, to be called by it; null where it calls none. */
  service: string | null;
  /** What the steps before gave, the brief's own fields included. */
  fields: Fields;
  /** How often this path was opened anew: part of every question asked, so that 'again' is not handed the same answer. */
  draw: number;
  signal: AbortSignal;
  /** Makes sure the worker's lease outlasts a call of this length; false when it cannot, and then the call must not be made. */
  leaseOutlasts(ms: number): Promise<boolean>;
  /** Adds to what the attempt cost. */
  spent(micros: number): void;
}

export type Performer<S extends Step = Step> = (step: S, context: StepContext) => Promise<StepResult>;

/** How each kind is done, by the name it has in the core. */
export type Performers = { [Kind in Exclude<StepKindName, 'take'>]: Performer<StepOf<Kind>> };
