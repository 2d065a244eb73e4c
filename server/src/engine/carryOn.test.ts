import { ProcedureDocument, planNodes, type Step, stepKinds } from '@grivo/core';
import { describe, expect, it } from 'vitest';
import type { Ground } from '../ground/ground.ts';
import { changeOf } from './briefChange.ts';
import { type BriefState, freshRun } from './briefState.ts';
import { type CarryPorts, carryOn } from './carryOn.ts';
import { Grip } from './hand.ts';
import { perform } from './perform.ts';
import type { Performers, StepResult } from './performer.ts';

const steps = (...kinds: ('check' | 'fetch' | 'work out')[]): Step[] =>
  kinds.map((kind, i) => ({ ...stepKinds[kind].fresh(`s${i + 1}`) }) as Step);

/** A brief whose first step is in hand. */
function briefOf(inner: Step[], more: Partial<BriefState> = {}): BriefState {
  const document = ProcedureDocument.parse({
    grivo: 1,
    language: 'en',
    steps: [{ ...stepKinds.take.fresh('s0'), sources: [] }, ...inner],
  });
  const run = freshRun('r1', { path: inner[0]!.id, round: 0, opens: false }, inner[0]!.kind, true);
  return {
    id: 'b1',
    pipeline: 'p1',
    trial: false,
    rev: 7,
    standing: 'in work',
    seed: '',
    subject: 'kefir',
    fields: {},
    priority: 5,
    document,
    nodes: planNodes(document),
    steps: new Map(document.steps.map((step) => [step.id, step])),
    byHand: false,
    runs: [run],
    outputs: new Map(),
    ...more,
  };
}

/** Every step gives what `results` says of its id, else it is done and gives its id. */
function portsFor(results: Record<string, StepResult> = {}) {
  const did: string[] = [];
  const one = async (step: { id: string }): Promise<StepResult> => {
    did.push(step.id);
    return results[step.id] ?? { kind: 'done', fields: { [step.id]: did.length } };
  };
  let n = 1;
  const ports: CarryPorts = {
    ground: { random: () => 0.5 } as unknown as Ground,
    performers: { check: one, fetch: one, 'work out': one } as unknown as Performers,
    grip: new Grip('r1', 'b1', null),
    broken: null,
    leaseOutlasts: async () => true,
    settled: () => undefined,
    ids: () => `r${++n}`,
    latest: (brief) => brief,
  };
  return { ports, did };
}

async function carried(brief: BriefState, results: Record<string, StepResult> = {}) {
  const { ports, did } = portsFor(results);
  const ending = await carryOn(await perform(brief, brief.runs[0]!, ports), ports);
  return { ending, did, paths: ending.carried?.endings.map(({ run }) => run.path) ?? [] };
}

const handing = { ids: () => 'next', serviceFor: () => null, handoff: () => true };

describe('steps that only compute', () => {
  it('are done after the step before them and end with it, each seeing what those before gave', async () => {
    const brief = briefOf(steps('fetch', 'check', 'work out', 'fetch'));
    const { ending, paths } = await carried(brief);
    expect(paths).toEqual(['s2', 's3']);
    const change = changeOf(brief, [ending], handing);
    expect(change.after.runs.map(({ path, state }) => `${path} ${state}`)).toEqual([
      's1 done',
      's2 done',
      's3 done',
      's4 running',
    ]);
    expect(change.after.rev).toBe(8);
    expect([...change.after.outputs.values()].map(({ fields }) => fields)).toEqual([{ s1: 1 }, { s2: 2 }, { s3: 3 }]);
    expect(brief.runs.map(({ state }) => state)).toEqual(['running']);
    expect(brief.outputs.size).toBe(0);
  });

  it('get other digests when what is before them gives something else', async () => {
    const digests = async (value: number) =>
      (
        await carried(briefOf(steps('fetch', 'check')), { s1: { kind: 'done', fields: { value } } })
      ).ending.carried!.endings.map(({ inputDigest }) => inputDigest);
    expect(await digests(1)).toEqual(await digests(1));
    expect(await digests(1)).not.toEqual(await digests(2));
  });

  it('do not count when the brief went on meanwhile: the next one is then planned as any', async () => {
    const brief = briefOf(steps('fetch', 'check', 'check'));
    const { ending } = await carried(brief);
    expect(ending.carried?.endings).toHaveLength(2);
    const change = changeOf({ ...brief, rev: 8 }, [ending], handing);
    expect(change.carried).toEqual([]);
    expect(change.fresh.map(({ run }) => run.path)).toEqual(['s2']);
  });

  it('count on top of what was learnt of the brief meanwhile, as that a step beside them is in hand now', async () => {
    const beside = {
      ...freshRun('r9', { path: 's3', round: 0, opens: false }, 'fetch', false),
      state: 'waiting' as const,
    };
    const brief = briefOf(steps('fetch', 'check', 'fetch'));
    brief.runs.push({ ...beside, forSlot: true });
    const { ending, paths } = await carried(brief);
    expect(paths).toEqual(['s2']);
    const [first] = brief.runs;
    const learnt = { ...brief, runs: [first!, { ...beside, state: 'running' as const, attempts: 2 }] };
    const { after, standing } = changeOf(learnt, [ending], handing);
    expect(after.runs.map(({ path, state }) => `${path} ${state}`)).toEqual(['s1 done', 's3 running', 's2 done']);
    expect(standing).toBe('in work');
  });

  it('stop at one that fails, which is then done with its attempts counted', async () => {
    const { paths, did } = await carried(briefOf(steps('fetch', 'check', 'check', 'check')), {
      s3: { kind: 'failed', failure: { code: 'defect', message: 'odd', stack: '' } },
    });
    expect(did).toEqual(['s1', 's2', 's3']);
    expect(paths).toEqual(['s2']);
  });

  it('lose nothing of what is ended when the line to the database breaks: what follows is done later', async () => {
    const brief = briefOf(steps('fetch', 'check', 'check'));
    const { ports } = portsFor();
    const first = await perform(brief, brief.runs[0]!, ports);
    const broken = async () => {
      throw Object.assign(new Error('gone'), { code: 'PROTOCOL_CONNECTION_LOST' });
    };
    const ending = await carryOn(first, { ...ports, performers: { ...ports.performers, check: broken } });
    expect(ending).toBe(first);
    expect(changeOf(brief, [ending], handing).fresh.map(({ run }) => run.path)).toEqual(['s2']);
  });

  it('stop at one that is held', async () => {
    const brief = briefOf(steps('fetch', 'check', 'check'));
    const { ending, paths } = await carried(brief, { s2: { kind: 'held', fields: {} } });
    expect(paths).toEqual(['s2']);
    expect(changeOf(brief, [ending], handing).standing).toBe('held');
  });

  it('wait for what a step leaves in the database', async () => {
    const { paths } = await carried(briefOf(steps('fetch', 'check')), {
      s1: { kind: 'done', fields: {}, writes: [{ text: 'UPDATE', parameters: [] }] },
    });
    expect(paths).toEqual([]);
  });

  it.each([
    ['in a trial', { trial: true }],
    ['by hand', { byHand: true }],
  ])('are committed one by one %s', async (_where, more) => {
    expect((await carried(briefOf(steps('fetch', 'check'), more))).paths).toEqual([]);
  });

  it('are not carried on after a step attempted before, so that one that brings its worker down is found alone', async () => {
    const brief = briefOf(steps('fetch', 'check'));
    brief.runs[0]!.attempts = 2;
    expect((await carried(brief)).paths).toEqual([]);
  });

  it('are no more than a commit can wait for', async () => {
    const brief = briefOf(steps('fetch', ...Array.from({ length: 30 }, () => 'check' as const)));
    const { ending, paths } = await carried(brief);
    expect(paths).toHaveLength(20);
    expect(changeOf(brief, [ending], handing).fresh.map(({ run }) => run.path)).toEqual(['s22']);
  });
});

it('a run as it is planned was not tried before and waits for nothing, in hand or not', () => {
  const of = (inHand: boolean) => freshRun('r1', { path: 's1', round: 2, opens: true }, 'write', inHand);
  const both = { id: 'r1', path: 's1', round: 2, opens: true, kind: 'write', outcome: null, tries: 0, forSlot: false };
  expect(of(true)).toEqual({ ...both, state: 'running', attempts: 1, startedAt: null });
  expect(of(false)).toEqual({ ...both, state: 'ready', attempts: 0, startedAt: null });
});
