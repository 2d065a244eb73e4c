import { type Ids, type NewRun, type Plan, plan } from '@grivo/core';
import { isLostConnection } from '../ground/store/database.ts';
import { end, kindOfNew } from './briefChange.ts';
import { type BriefState, freshRun } from './briefState.ts';
import type { Ending } from './ending.ts';
import { type PerformPorts, perform } from './perform.ts';

/**
 * Kinds that only compute: nothing outside notices them, they keep nothing of their own in the database, and done twice
 * they give the same. 'check' reads the article, so nothing may be carried on over a step that leaves writes.
 */
const COMPUTES: ReadonlySet<string> = new Set(['when', 'for each', 'meanwhile', 'use', 'work out', 'check']);

/** Steps carried on after one, so that what is ended does not wait long for its commit. */
const MOST_CARRIED = 20;

/** Steps done after another without waiting for its commit, to be committed with it. */
export interface Carried {
  /** The rev of the brief they were planned from: with another they do not count, and are done as any step is. */
  rev: number;
  endings: Ending[];
  /** What was known of the brief then, what is with all of them ended, and what comes next. */
  from: BriefState;
  after: BriefState;
  next: Plan;
}

export interface CarryPorts extends PerformPorts {
  ids: Ids;
  latest: (brief: BriefState) => BriefState;
}

/**
 * Does the steps that follow a step just ended, as long as each only computes and is the only one that comes next: they
 * are committed with it, one transaction for all. A crash loses nothing, since they are done again; it counts as an
 * attempt of the step they follow, and what follows a step that was attempted before is never carried on, so a step that
 * brings its worker down is soon found alone. A trial shows steps as they end, so there each is committed by itself.
 */
export async function carryOn(first: Ending, ports: CarryPorts): Promise<Ending> {
  const brief = ports.latest(first.brief);
  if (brief.trial || brief.byHand || first.run.attempts > 1 || !mayGoOn(first)) return first;
  const endings: Ending[] = [];
  const after = { ...brief, runs: [...brief.runs], outputs: new Map(brief.outputs) };
  const alike: PerformPorts = { ...ports, broken: null, settled: () => undefined };
  for (let ended = first; ; ended = endings.at(-1)!) {
    end(after, ended);
    const next = plan(after.nodes, after.runs);
    const carries = mayGoOn(ended) && endings.length < MOST_CARRIED ? onlyNext(after, next) : null;
    const ending = carries && (await performAfter(after, carries, ports.ids(), alike));
    if (ending) endings.push(ending);
    else
      return endings.length === 0
        ? first
        : { ...first, carried: { rev: brief.rev, endings, from: brief, after, next } };
  }
}

/**
 * What is ended already is not lost with a line to the database: the step is then done later, by itself, as is one that
 * has to come back.
 */
async function performAfter(state: BriefState, next: NewRun, id: string, ports: PerformPorts): Promise<Ending | null> {
  const run = freshRun(id, next, kindOfNew(state, next), true);
  state.runs.push(run);
  try {
    const ending = await perform(state, run, ports);
    if (ending.state === 'done' || ending.state === 'held') return ending;
  } catch (error) {
    if (!isLostConnection(error)) throw error;
  }
  state.runs.pop();
  return null;
}

function mayGoOn({ state, writes }: Ending): boolean {
  return state === 'done' && writes.length === 0;
}

function onlyNext(state: BriefState, { create, cancel }: Plan): NewRun | null {
  const [next, ...others] = create;
  if (!next || next.opens || others.length > 0 || cancel.length > 0) return null;
  return COMPUTES.has(kindOfNew(state, next)) ? next : null;
}
