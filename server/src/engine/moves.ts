import {
  BRIEF,
  type BriefEvent,
  type BriefStanding,
  type Events,
  mayBecome,
  RUN,
  type RunEvent,
  type StepState,
} from '@grivo/core';

/** The parts of a statement that has an event happen: what it sets, and where it can happen. */
export interface Move {
  set: string;
  from: string;
}

const named = (names: readonly string[]) => names.map((name) => `'${name}'`).join(', ');

/** A move for every event of a table of events: both parts are made of its names alone. */
export function movesOf<S extends string, E extends string>(
  events: Events<S, E>,
  column: string,
  with_: (to: S) => string,
): Record<E, Move> {
  const all = Object.entries(events) as [E, { from: readonly S[]; to: S }][];
  return Object.fromEntries(
    all.map(([event, { from, to }]) => [
      event,
      { set: `${column} = '${to}', ${with_(to)}`, from: `${column} IN (${named(from)})` },
    ]),
  ) as Record<E, Move>;
}

/** What a run has in a state and in no other. Who claims it is said by the claim; when it wakes, by what makes it wait. */
const RUN_HAS: Record<StepState, string> = {
  ready: 'lane = home_lane, holder = NULL, due_at = NULL, due_desk = NULL',
  running: 'lane = NULL, due_at = NULL, due_desk = NULL',
  waiting: 'lane = NULL, holder = NULL',
  held: 'lane = NULL, holder = NULL',
  stopped: 'lane = NULL, holder = NULL, due_at = NULL, due_desk = NULL',
  done: 'lane = NULL, holder = NULL, ended_at = UTC_TIMESTAMP(3)',
  cancelled: 'lane = NULL, holder = NULL, due_at = NULL, due_desk = NULL, ended_at = UTC_TIMESTAMP(3)',
};

/** Every way the state of a run is changed. */
export const runMoves: Record<RunEvent, Move> = movesOf(RUN, 'state', (to: StepState) => RUN_HAS[to]);

/** Every way the standing of a brief is changed, but for {@link checkedStanding}. */
export const briefMoves: Record<BriefEvent, Move> = movesOf(BRIEF, 'standing', () => 'rev = rev + 1');

/** How a run that was in hand ended here, by the state it ended in. */
export const ENDS: Record<Exclude<StepState, 'running' | 'cancelled'>, RunEvent> = {
  ready: 'give back',
  waiting: 'pause',
  held: 'hold',
  stopped: 'fail',
  done: 'end',
};

/**
 * The standing a plan gives a brief, once it is sure that it may become that.
 * @throws when no event leads there: the plan was made from what cannot be
 */
export function checkedStanding(before: BriefStanding, after: BriefStanding): BriefStanding {
  if (before !== after && !mayBecome(BRIEF, before, after))
    throw new Error(`a brief that is ‘${before}’ cannot become ‘${after}’`);
  return after;
}
