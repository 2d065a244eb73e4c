import type { Failure, PlanRun, StepState } from '@grivo/core';
import type { Write } from '../ground/store/write.ts';
import type { BriefState, RunState } from './briefState.ts';
import type { Carried } from './carryOn.ts';
import type { Fields } from './performer.ts';

/** A step run in this worker's hands. */
export interface Held {
  run: string;
  brief: string;
}

/** How a run in hand ended, ready to be committed. */
export interface Ending {
  brief: BriefState;
  run: RunState;
  state: Exclude<StepState, 'running' | 'cancelled'>;
  outcome: PlanRun['outcome'];
  fields: Fields | null;
  inputDigest: string | null;
  failure: Failure | null;
  incident: string | null;
  dueInMs: number | null;
  dueDesk: number | null;
  forSlot: boolean;
  tries: number;
  micros: number;
  writes: Write[];
  /** What was done after it and is committed with it. */
  carried: Carried | null;
  /** Called once it is known whether the ending counted. */
  settled: (counted: boolean) => void;
}

/** An ending: done with nothing, as far as nothing else is said. */
export const endingOf = (brief: BriefState, run: RunState, part: Partial<Ending>): Ending => ({
  brief,
  run,
  state: 'done',
  outcome: null,
  fields: null,
  inputDigest: null,
  failure: null,
  incident: null,
  dueInMs: null,
  dueDesk: null,
  forSlot: false,
  tries: 0,
  micros: 0,
  writes: [],
  carried: null,
  settled: () => undefined,
  ...part,
});
