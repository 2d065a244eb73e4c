import { type BriefStanding, type Ids, type NewRun, plan, standingOf } from '@grivo/core';
import { type BriefState, freshRun, type RunState } from './briefState.ts';
import type { Carried } from './carryOn.ts';
import type { Ending } from './ending.ts';
import { laneOf, type ServiceFor } from './lane.ts';

/** One brief's part of a batch: what is written, and what the brief looks like afterwards. */
export interface BriefChange {
  brief: BriefState;
  endings: Ending[];
  /** Ends of steps that were done without waiting for the commit of the one before. */
  carried: Ending[];
  after: BriefState;
  fresh: { run: RunState; handed: boolean; service: string | null; lane: string }[];
  cancelled: RunState[];
  standing: BriefStanding;
}

export interface ChangePorts {
  ids: Ids;
  /** The service a kind would call now, for the lane of its run. */
  serviceFor: ServiceFor;
  /**
   * Whether this worker takes a step of a brief straight on, already leased. One that follows a step it has in hand takes
   * that one's place.
   */
  handoff: (service: string | null, priority: number, takesPlace: boolean) => boolean;
}

/** What a brief becomes by the ends of some of its runs: the planner says what comes next, the ports who does it. */
export function changeOf(brief: BriefState, endings: Ending[], ports: ChangePorts): BriefChange {
  const carried = carriedBy(brief, endings);
  // Worked out already, unless more was learnt of the brief meanwhile, as that another of its steps is in hand.
  const known = carried?.from === brief ? carried : null;
  const ended = known?.after ?? endedBy(brief, endings, carried?.endings ?? []);
  const { runs } = ended;
  const next = known?.next ?? plan(brief.nodes, runs);
  let places = endings.filter((ending) => ending.state === 'done').length;
  const fresh = next.create.map((wanted) => {
    const kind = kindOfNew(brief, wanted);
    const service = ports.serviceFor(kind, brief.steps.get(wanted.node.id), brief.document);
    const handed = ports.handoff(service, brief.priority, places > 0);
    if (handed) places--;
    const run = freshRun(ports.ids(), wanted, kind, handed);
    return { run, handed, service, lane: laneOf(service, brief.priority) };
  });
  const cancelled = runs.filter((run) =>
    next.cancel.some(({ path, round }) => path === run.path && round === run.round),
  );
  const kept =
    cancelled.length === 0
      ? runs
      : runs.map((run): RunState => (cancelled.includes(run) ? { ...run, state: 'cancelled' } : run));
  const allRuns = fresh.length === 0 ? kept : [...kept, ...fresh.map(({ run }) => run)];
  const open = allRuns.filter((run) => run.state !== 'done' && run.state !== 'cancelled');
  const standing = standingOf(open, next.ended === 'done' ? 'out' : next.ended);
  const after: BriefState = { ...ended, rev: brief.rev + 1, standing, runs: allRuns };
  return { brief, endings, carried: carried?.endings ?? [], after, fresh, cancelled, standing };
}

function endedBy(brief: BriefState, endings: readonly Ending[], carried: readonly Ending[]): BriefState {
  const runs = [...brief.runs, ...carried.map(({ run }) => run)];
  const ended = { ...brief, runs, outputs: new Map(brief.outputs) };
  for (const ending of [...endings, ...carried]) end(ended, ending);
  return ended;
}

/** The kind of a step the planner wants to run. */
export function kindOfNew(brief: BriefState, { node }: NewRun): string {
  return brief.steps.get(node.id)?.kind ?? node.type;
}

/** Ends a run in what is known of a brief, nothing planned yet; the run itself is left as it was. */
export function end(
  brief: BriefState,
  { run: { id }, state, outcome, tries, forSlot, fields, inputDigest }: Ending,
): void {
  const at = brief.runs.findIndex((run) => run.id === id);
  if (at >= 0) brief.runs[at] = { ...brief.runs[at]!, state, outcome, tries, forSlot };
  if (fields) brief.outputs.set(id, { fields, inputDigest });
}

/** What was carried on counts only while the brief is as it was then, and nothing else of it ends at once. */
function carriedBy(brief: BriefState, endings: readonly Ending[]): Carried | null {
  const [only] = endings;
  return endings.length === 1 && only?.carried?.rev === brief.rev ? only.carried : null;
}
