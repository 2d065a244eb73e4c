import { backoffMs, classOf, drawAt, type Failure, lasting, stepIdOf } from '@grivo/core';
import type { Ground } from '../ground/ground.ts';
import { isLostConnection } from '../ground/store/database.ts';
import type { Broken } from './breakers.ts';
import { type BriefState, fieldsAt, inputDigest, type RunState } from './briefState.ts';
import { type Ending, endingOf } from './ending.ts';
import type { Grip } from './hand.ts';
import { openIncident, TRIES_ANYWAY } from './incidents.ts';
import type { Fields, Performer, Performers, StepResult } from './performer.ts';

export interface PerformPorts {
  ground: Ground;
  performers: Performers;
  /** Tells when the step is given up, as when the lease is lost. */
  grip: Grip;
  /** What is wrong with the service the step would call. */
  broken: Broken | null;
  leaseOutlasts: (ms: number) => Promise<boolean>;
  settled: () => void;
}

/** Kinds that only say what comes next: nothing of them is held. */
const BLOCKS: ReadonlySet<string> = new Set(['when', 'for each', 'meanwhile', 'use']);

/**
 * Does one step and says how it ended: done, to come back later, or failed with what kind of failure it was. A step whose
 * input is what it was in an earlier round takes that result over.
 */
export async function perform(brief: BriefState, run: RunState, ports: PerformPorts): Promise<Ending> {
  const step = brief.steps.get(stepIdOf(run.path));
  const fields = fieldsAt(brief, run.path);
  const draw = drawAt(brief.runs, run.path);
  const digest = step ? inputDigest(step, fields, draw) : null;
  let micros = 0;
  const ending = (part: Partial<Ending>): Ending =>
    endingOf(brief, run, { inputDigest: digest, micros, settled: ports.settled, ...part });
  const kept = stillHolds(brief, run, digest);
  if (kept) return ending({ fields: kept.fields, outcome: kept.outcome });
  // Recording it finds the incident closed if it was mended meanwhile, and lets the step go on.
  if (ports.broken && run.tries !== TRIES_ANYWAY)
    return ending({ state: 'stopped', failure: ports.broken.failure, incident: ports.broken.incident });
  const performer = step && step.kind !== 'take' ? (ports.performers[step.kind] as unknown as Performer) : null;
  if (!step || !performer) throw new Error(`no way to perform ${run.kind} at ${run.path}`);
  const result = await attempt(() =>
    performer(step, {
      brief: onSubject(brief, fields),
      run,
      service: ports.grip.service,
      fields,
      draw,
      get signal() {
        return ports.grip.signal;
      },
      leaseOutlasts: ports.leaseOutlasts,
      spent: (more) => {
        micros += more;
      },
    }),
  );
  if (ports.grip.givenUp) throw new Error('given up');
  const isHeld = (step.hold && !brief.trial) || (brief.byHand && !BLOCKS.has(step.kind));
  return ending(
    result.kind === 'failed' ? await failed(ports.ground, run, result.failure) : cameTo(result, run, isHeld),
  );
}

/** The brief as a step sees it: what it is about may be known better since something was read. */
function onSubject(brief: BriefState, { subject }: Fields): BriefState {
  const isSaid = typeof subject === 'string' && subject.trim() !== '' && subject !== brief.subject;
  return isSaid ? { ...brief, subject } : brief;
}

/** What comes of a step that did not fail. */
function cameTo(
  result: Exclude<StepResult, { kind: 'failed' }>,
  run: RunState,
  isHeld: boolean | undefined,
): Partial<Ending> {
  switch (result.kind) {
    case 'done':
    case 'held':
      return {
        state: result.kind === 'held' || isHeld ? 'held' : 'done',
        fields: result.fields,
        outcome: result.outcome ?? { kind: 'done' },
        writes: result.writes ?? [],
      };
    case 'at':
      return { state: 'waiting', dueDesk: result.desk, forSlot: result.forSlot, fields: result.fields ?? null };
    case 'later':
      return { state: 'waiting', dueInMs: result.inMs, tries: run.tries };
  }
}

/** The result of an earlier round that still holds: same step, same input, and not opened anew itself. */
function stillHolds(
  brief: BriefState,
  run: RunState,
  digest: string | null,
): { fields: Ending['fields']; outcome: RunState['outcome'] } | null {
  if (run.round === 0 || (run.opens && !run.keepsDraw) || digest === null) return null;
  const earlier = brief.runs
    .filter((r) => r.path === run.path && r.round < run.round && r.state === 'done')
    .sort((a, b) => b.round - a.round);
  for (const candidate of earlier) {
    const output = brief.outputs.get(candidate.id);
    if (output && output.inputDigest === digest && candidate.outcome?.kind !== 'again')
      return { fields: output.fields, outcome: candidate.outcome };
  }
  return null;
}

async function failed(ground: Ground, run: RunState, first: Failure): Promise<Partial<Ending>> {
  const tries = run.tries + 1;
  const failure = lasting(first, tries) ?? first;
  if (classOf(failure) === 'transient') {
    return { state: 'waiting', failure, tries, dueInMs: backoffMs(failure, tries, ground.random) };
  }
  const incident = await openIncident(ground, failure, run.id);
  if (incident === 'released') return { state: 'waiting', failure, tries: 0, dueInMs: 0 };
  return { state: 'stopped', failure, tries, incident };
}

/** A performer that throws has met a bug of ours; what the database did to us is no bug and goes on. */
async function attempt(work: () => Promise<StepResult>): Promise<StepResult> {
  try {
    return await work();
  } catch (error) {
    if (isLostConnection(error)) throw error;
    const { message, stack } = error instanceof Error ? error : new Error(String(error));
    return { kind: 'failed', failure: { code: 'defect', message, stack: stack ?? '' } };
  }
}
