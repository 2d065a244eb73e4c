import { type BriefStanding, type Ids, plan, standingOf } from '@grivo/core';
import type { BriefState, RunState } from './briefState.ts';
import type { Ending } from './ending.ts';
import { laneOf, roleCalled } from './lane.ts';

/** One brief's part of a batch: what is written, and what the brief looks like afterwards. */
export interface BriefChange {
  brief: BriefState;
  endings: Ending[];
  after: BriefState;
  fresh: { run: RunState; handed: boolean; service: string | null; lane: string }[];
  cancelled: RunState[];
  standing: BriefStanding;
}

export interface ChangePorts {
  ids: Ids;
  /** The service a kind would call now, for the lane of its run. */
  serviceFor: (kind: string) => string | null;
  /**
   * Whether this worker takes a step of a brief straight on, already leased. One that follows a step it has in hand takes
   * that one's place.
   */
  handoff: (service: string | null, priority: number, takesPlace: boolean) => boolean;
}

/** What a brief becomes by the ends of some of its runs: the planner says what comes next, the ports who does it. */
export function changeOf(brief: BriefState, endings: Ending[], ports: ChangePorts): BriefChange {
  const ends = new Map(endings.map((ending) => [ending.run.id, ending]));
  const runs = brief.runs.map((run): RunState => {
    const ending = ends.get(run.id);
    return ending
      ? { ...run, state: ending.state, outcome: ending.outcome, tries: ending.tries, forSlot: ending.forSlot }
      : run;
  });
  const next = plan(brief.nodes, runs);
  const cancelKeys = new Set(next.cancel.map((key) => `${key.path} ${key.round}`));
  const cancelled = runs.filter((run) => cancelKeys.has(`${run.path} ${run.round}`));
  let places = endings.filter((ending) => ending.state === 'done').length;
  const fresh = next.create.map(({ path, round, opens, node }) => {
    const kind = brief.steps.get(node.id)?.kind ?? node.type;
    const service = roleCalled(kind) ? ports.serviceFor(kind) : null;
    const handed = ports.handoff(service, brief.priority, places > 0);
    if (handed) places--;
    const run: RunState = {
      id: ports.ids(),
      path,
      round,
      opens,
      kind,
      state: handed ? 'running' : 'ready',
      outcome: null,
      attempts: handed ? 1 : 0,
      tries: 0,
      forSlot: false,
      startedAt: null,
    };
    return { run, handed, service, lane: laneOf(service, brief.priority) };
  });
  const kept = runs.map((run): RunState => (cancelled.includes(run) ? { ...run, state: 'cancelled' } : run));
  const allRuns = [...kept, ...fresh.map(({ run }) => run)];
  const open = allRuns.filter((run) => run.state !== 'done' && run.state !== 'cancelled');
  const ended = next.ended === 'done' ? 'out' : next.ended;
  const standing = standingOf(open, ended);
  const outputs = new Map(brief.outputs);
  for (const ending of endings)
    if (ending.fields) outputs.set(ending.run.id, { fields: ending.fields, inputDigest: ending.inputDigest });
  const after: BriefState = { ...brief, rev: brief.rev + 1, standing, runs: allRuns, outputs };
  return { brief, endings, after, fresh, cancelled, standing };
}
