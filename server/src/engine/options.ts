import type { PinsFor } from './admission.ts';
import type { Procedures } from './briefState.ts';
import type { ProcessRole } from './lease.ts';
import type { Performers } from './performer.ts';

/** Keeps time for schedules. */
export interface Fires {
  due(): Promise<void>;
  /** Ends when nothing of it is under way. */
  settled(): Promise<void>;
}

export const NOTHING_FIRES: Fires = { due: async () => undefined, settled: async () => undefined };

export interface EngineOptions {
  role: ProcessRole;
  performers: Performers;
  /** Most steps in hand at once. */
  capacity?: number;
  leaseSeconds?: number;
  /** Milliseconds between safety scans. */
  scanMs?: number;
  /** What fires what is due by the desk clock, and tells when something was taken. */
  firing?: (procedures: Procedures, onFired: () => void) => Fires;
  /** The versions of the routines a document uses, as they are now. */
  pinsFor?: PinsFor;
  /** What is to be finished that others left behind. */
  chores?: readonly Chore[];
  /** What is looked after beside the work, and may take its time. */
  upkeep?: readonly Chore[];
}

/** One of several things that are done in turn, again and again; where it fails, the others are done all the same. */
export type Chore = () => Promise<unknown>;
