/**
 * Every state there is and every way from one to another. Nothing else in the product decides whether a state may change.
 */

/** Where one run of a step stands. Only `ready` rows carry a lane, only `running` rows a holder. */
export type StepState = 'ready' | 'running' | 'waiting' | 'held' | 'stopped' | 'done' | 'cancelled';

const STEP: Record<StepState, readonly StepState[]> = {
  // `stopped` from here and from `waiting`: a person stopped the brief.
  ready: ['running', 'stopped', 'cancelled'],
  // `ready` again: its worker died, or it gave the step back.
  running: ['done', 'waiting', 'held', 'stopped', 'ready', 'cancelled'],
  // Waits for a time: a retry, a slot, the next month.
  waiting: ['ready', 'stopped', 'cancelled'],
  held: ['done', 'cancelled'],
  stopped: ['ready', 'cancelled'],
  done: [],
  cancelled: [],
};

/** Where a brief is. `planned` is not stored: it is what a look would bring. */
export type BriefStanding = 'waiting' | 'in work' | 'held' | 'stopped' | 'ready' | 'set aside' | 'out';

const BRIEF: Record<BriefStanding, readonly BriefStanding[]> = {
  waiting: ['in work', 'set aside'],
  'in work': ['held', 'stopped', 'ready', 'set aside', 'out'],
  held: ['in work', 'stopped', 'ready', 'set aside', 'out'],
  stopped: ['in work', 'held', 'ready', 'set aside', 'out'],
  ready: ['in work', 'held', 'stopped', 'set aside', 'out'],
  'set aside': ['in work', 'waiting'],
  out: ['in work'],
};

export type PublicationState = 'planned' | 'creating' | 'draft' | 'live' | 'withdrawn';

const PUBLICATION: Record<PublicationState, readonly PublicationState[]> = {
  planned: ['creating'],
  creating: ['draft', 'live'],
  draft: ['live', 'withdrawn'],
  live: ['withdrawn'],
  withdrawn: ['creating'],
};

export function stepMay(from: StepState, to: StepState): boolean {
  return STEP[from].includes(to);
}

export function briefMay(from: BriefStanding, to: BriefStanding): boolean {
  return from === to || BRIEF[from].includes(to);
}

export function publicationMay(from: PublicationState, to: PublicationState): boolean {
  return PUBLICATION[from].includes(to);
}

/** Standings that count against how many briefs of a pipeline may be in work at once. */
export const COUNTS_AS_OPEN: readonly BriefStanding[] = ['in work'];

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
