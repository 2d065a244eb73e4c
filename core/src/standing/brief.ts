import type { Events } from './machine.ts';
import type { StepState } from './run.ts';

/** Where a brief is. `planned` is not stored: it is what a look would bring. */
export type BriefStanding = 'waiting' | 'in work' | 'held' | 'stopped' | 'ready' | 'set aside' | 'out';

/** Begun and not ended. */
export const BEGUN = ['in work', 'held', 'stopped', 'ready'] as const satisfies readonly BriefStanding[];
/** Not ended. */
export const OPEN_BRIEFS = ['waiting', ...BEGUN] as const satisfies readonly BriefStanding[];

/** Everything that happens to a brief. Nothing else in the product changes its standing. */
export const BRIEF = {
  begin: { from: ['waiting'], to: 'in work' },
  /** A step of it runs or waits to run again; a step is made anew, also once it has ended. */
  work: { from: [...BEGUN, 'set aside', 'out'], to: 'in work' },
  hold: { from: BEGUN, to: 'held' },
  /** One that has not begun is stopped too: it keeps its place and does not begin. */
  stop: { from: OPEN_BRIEFS, to: 'stopped' },
  'wait for its slot': { from: BEGUN, to: 'ready' },
  'wait again': { from: ['stopped', 'set aside'], to: 'waiting' },
  'set aside': { from: OPEN_BRIEFS, to: 'set aside' },
  /** One whose procedure has nothing to be done ends as it begins. */
  end: { from: [...OPEN_BRIEFS, 'set aside', 'out'], to: 'out' },
} as const satisfies Events<BriefStanding, string>;
export type BriefEvent = keyof typeof BRIEF;

/**
 * The standing of a brief from its open step runs.
 * @param open states of the runs that have not ended, with whether a waiting one waits for its slot
 * @param ended how the brief ended, if the planner says it has
 */
export function standingOf(
  open: readonly { state: StepState; forSlot: boolean }[],
  ended: 'out' | 'set aside' | null,
): BriefStanding {
  if (ended) return ended;
  const states = new Set(open.map((run) => run.state));
  if (states.has('running') || states.has('ready')) return 'in work';
  if (states.has('stopped')) return 'stopped';
  if (states.has('held')) return 'held';
  return open.length > 0 && open.every((run) => run.state === 'waiting' && run.forSlot) ? 'ready' : 'in work';
}
