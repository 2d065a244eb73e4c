import type { StepState } from '../standing/run.ts';

/**
 * A procedure as the planner sees it: steps and blocks with stable ids, unique in the document. What a step does is not
 * its concern, only what comes after what.
 */
export type PlanNode =
  | { type: 'step'; id: string; off: boolean /** A making step that 'write it again' goes back to. */; writes: boolean }
  | { type: 'when'; id: string; off: boolean; holds: PlanNode[]; otherwise: PlanNode[] }
  | { type: 'each'; id: string; off: boolean; body: PlanNode[] }
  /** The steps of a routine: a scope of its own, in line. */
  | { type: 'use'; id: string; off: boolean; body: PlanNode[] }
  | {
      type: 'meanwhile';
      id: string;
      off: boolean;
      body: PlanNode[] /** The join does not wait for it while it is stopped. */;
      goOnWithout: boolean;
    };

/** How a step run ended, as far as it decides what comes next. */
export type Outcome =
  | { kind: 'done' }
  /** With why, in words that go on from ‘it was set aside:’. */
  /** `code` tells causes apart that are told together with others of their own kind only. */
  | { kind: 'set aside'; why?: string; code?: 'ours-already' }
  /** Of a 'when': which block is taken. */
  | { kind: 'branch'; to: 'then' | 'otherwise' }
  /** Of a 'for each': one key a turn, made of the value's digest and its occurrence. */
  | { kind: 'turns'; keys: string[] }
  /** Of a check: back to the nearest earlier write of its block; after `most` times it is set aside. */
  | { kind: 'again'; most: number };

/** A step run as the planner reads it. */
export interface PlanRun {
  path: string;
  round: number;
  /** Made by 'run again from here' or 'write it again': everything that depends on this path is made anew from this round on. */
  opens: boolean;
  /** Opened because the document changed: what was answered before is not asked anew. */
  keepsDraw?: boolean;
  state: StepState;
  /** Set once the state is `done`. */
  outcome: Outcome | null;
}

export type RunKey = Pick<PlanRun, 'path' | 'round'>;

export interface NewRun extends RunKey {
  opens: boolean;
  node: PlanNode;
}

export interface Plan {
  create: NewRun[];
  /** Open runs that no longer count: superseded by a later round, or in a line that was set aside. */
  cancel: RunKey[];
  /** Set when nothing is left to do. */
  ended: 'done' | 'set aside' | null;
}
