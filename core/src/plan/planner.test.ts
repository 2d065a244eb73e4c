import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { chanceFrom } from '../chance/chance.ts';
import type { Outcome, Plan, PlanNode, PlanRun } from './node.ts';
import { lineOf, locate, stepIdOf } from './path.ts';
import { plan } from './planner.ts';
import { drawAt, lastRound, roundAt, supersedes } from './rounds.ts';
import { visibleRuns } from './scope.ts';

const step = (id: string, writes = false): PlanNode => ({ type: 'step', id, off: false, writes });
const when = (id: string, holds: PlanNode[], otherwise: PlanNode[] = []): PlanNode => ({
  type: 'when',
  id,
  off: false,
  holds,
  otherwise,
});
const each = (id: string, body: PlanNode[]): PlanNode => ({ type: 'each', id, off: false, body });
const meanwhile = (id: string, body: PlanNode[], goOnWithout = false): PlanNode => ({
  type: 'meanwhile',
  id,
  off: false,
  body,
  goOnWithout,
});
const done = (path: string, outcome: Outcome = { kind: 'done' }, round = 0, opens = false): PlanRun => ({
  path,
  round,
  opens,
  state: 'done',
  outcome,
});
const open = (path: string, state: PlanRun['state'] = 'running', round = 0): PlanRun => ({
  path,
  round,
  opens: false,
  state,
  outcome: null,
});
const created = (p: Plan) => p.create.map((run) => `${run.path}@${run.round}`);

describe('what comes next', () => {
  const doc = [step('a'), meanwhile('m', [step('x'), step('y')]), step('b', true), step('c')];

  test('a branch opens beside the line and joins at the end of its block', () => {
    expect(created(plan(doc, [done('a')]))).toEqual(['m@0']);
    expect(created(plan(doc, [done('a'), done('m')]))).toEqual(['m/x@0', 'b@0']);
    const joined = plan(doc, [done('a'), done('m'), done('m/x'), open('m/y'), done('b'), done('c')]);
    expect(joined).toMatchObject({ create: [], ended: null });
    expect(plan(doc, [done('a'), done('m'), done('m/x'), done('m/y'), done('b'), done('c')]).ended).toBe('done');
  });

  test('set aside ends the innermost branch or turn, else the brief with all that is open', () => {
    expect(plan(doc, [done('a'), done('m'), done('m/x', { kind: 'set aside' }), done('b'), done('c')]).ended).toBe(
      'done',
    );
    const whole = plan(doc, [done('a'), done('m'), open('m/x'), done('b', { kind: 'set aside' })]);
    expect(whole).toMatchObject({ create: [], cancel: [{ path: 'm/x', round: 0 }], ended: 'set aside' });
    const inWhen = plan(
      [when('w', [step('x')]), step('z')],
      [done('w', { kind: 'branch', to: 'then' }), done('w/x', { kind: 'set aside' })],
    );
    expect(inWhen.ended).toBe('set aside');
    const turns = [each('e', [step('t')]), step('z')];
    expect(
      created(
        plan(turns, [
          done('e', { kind: 'turns', keys: ['de', 'fr'] }),
          done('e[de]/t', { kind: 'set aside' }),
          done('e[fr]/t'),
        ]),
      ),
    ).toEqual(['z@0']);
  });

  test('a join waits for a stopped branch unless it may go on without it', () => {
    const nested = (goOn: boolean) => [when('w', [meanwhile('m', [step('x')], goOn), step('b')]), step('z')];
    const runs = [done('w', { kind: 'branch', to: 'then' }), done('w/m'), open('w/m/x', 'stopped'), done('w/b')];
    expect(created(plan(nested(false), runs))).toEqual([]);
    expect(created(plan(nested(true), runs))).toEqual(['z@0']);
  });

  test('write it again goes back to the nearest write, at most so often, then sets aside', () => {
    const doc2 = [step('o'), step('w', true), step('k'), step('p')];
    const first = plan(doc2, [done('o'), done('w'), done('k', { kind: 'again', most: 1 })]);
    expect(first.create).toMatchObject([{ path: 'w', round: 1, opens: true }]);
    const runs = [done('o'), done('w'), done('k', { kind: 'again', most: 1 }), done('w', { kind: 'done' }, 1, true)];
    expect(created(plan(doc2, runs))).toEqual(['k@1']);
    expect(plan(doc2, [...runs, done('k', { kind: 'again', most: 1 }, 1)]).ended).toBe('set aside');
    expect(drawAt(runs, 'w')).toBe(1);
    expect(lastRound(runs)).toBe(1);
  });

  test('a new round makes anew what depends on it and nothing else, and cancels what ran on the old one', () => {
    const wide = [step('a'), each('e', [step('t'), step('u')]), meanwhile('m', [step('x')]), step('b'), step('c')];
    expect(supersedes(wide, 'e[de]/t', 'e[de]/u')).toBe(true);
    expect(supersedes(wide, 'e[de]/t', 'e[fr]/t')).toBe(false);
    expect(supersedes(wide, 'e[de]/t', 'e')).toBe(false);
    expect(supersedes(wide, 'e[de]/t', 'b')).toBe(true);
    expect(supersedes(wide, 'm/x', 'b')).toBe(false);
    expect(supersedes(wide, 'a', 'm/x')).toBe(true);
    expect(supersedes(wide, 'b', 'm/x')).toBe(false);
    const joined = [when('w', [meanwhile('m', [step('x')]), step('b')]), step('z')];
    expect(supersedes(joined, 'w/m/x', 'w/b')).toBe(false);
    expect(supersedes(joined, 'w/m/x', 'z')).toBe(true);
    const runs = [done('a'), done('a', { kind: 'done' }, 1, true), open('e')];
    expect(plan(wide, runs)).toMatchObject({ create: [{ path: 'e', round: 1 }], cancel: [{ path: 'e', round: 0 }] });
    expect(roundAt(wide, runs, 'c')).toBe(1);
  });

  test('a step switched off is passed over', () => {
    expect(created(plan([{ ...step('a'), off: true }, step('b')], []))).toEqual(['b@0']);
  });
});

describe('what a step sees', () => {
  const doc = [
    step('a'),
    meanwhile('m', [step('x'), step('y')]),
    step('b'),
    each('e', [step('t')]),
    when('w', [step('i')], [step('j')]),
    step('z'),
  ];
  const runs = [
    done('a'),
    done('m'),
    done('m/x'),
    done('b'),
    done('e', { kind: 'turns', keys: ['k'] }),
    done('e[k]/t'),
    done('w', { kind: 'branch', to: 'then' }),
    done('w/i'),
  ];
  const seen = (path: string) => visibleRuns(doc, runs, path).map((v) => (v.under ? `${v.under}:${v.path}` : v.path));

  test('a branch sees the fields as they were when it opened; blocks give back under their name', () => {
    expect(seen('m/y')).toEqual(['a', 'm/x']);
    expect(seen('b')).toEqual(['a']);
    expect(seen('z')).toEqual(['a', 'b', 'e:e[k]/t', 'w/i']);
    expect(seen('w/i')).toEqual(['a', 'b', 'e:e[k]/t']);
  });

  test('articles belong to the innermost branch or turn', () => {
    expect(lineOf(doc, 'b')).toBe('');
    expect(lineOf(doc, 'w/i')).toBe('');
    expect(lineOf(doc, 'm/x')).toBe('m');
    expect(lineOf(doc, 'e[k]/t')).toBe('e[k]');
  });
});

// ---- properties -------------------------------------------------------------------------------------------------

let counter = 0;
const documents: fc.Arbitrary<PlanNode[]> = fc
  .letrec<{ sequence: PlanNode[]; node: PlanNode }>((tie) => ({
    sequence: fc.array(tie('node'), { minLength: 1, maxLength: 3 }),
    node: fc.oneof(
      { depthSize: 'small', withCrossShrink: true },
      fc.boolean().map((writes) => step('?', writes)),
      fc.tuple(tie('sequence'), tie('sequence')).map(([then, otherwise]) => when('?', then, otherwise)),
      tie('sequence').map((body) => each('?', body)),
      fc.tuple(tie('sequence'), fc.boolean()).map(([body, goOn]) => meanwhile('?', body, goOn)),
    ),
  }))
  .sequence.map((nodes) => {
    counter = 0;
    return named(nodes);
  });

function named(nodes: PlanNode[]): PlanNode[] {
  return nodes.map((node): PlanNode => {
    const id = `s${++counter}`;
    if (node.type === 'when') return { ...node, id, holds: named(node.holds), otherwise: named(node.otherwise) };
    if (node.type === 'each' || node.type === 'meanwhile') return { ...node, id, body: named(node.body) };
    return { ...node, id };
  });
}

type PlanFunction = typeof plan;

interface Trial {
  planner: PlanFunction;
  /** Whether a plan is applied only if nothing changed since it was read, as the engine does. */
  compare: boolean;
}

interface Verdict {
  ended: Plan['ended'];
  doubled: string[];
  /** Steps begun before what they wait for was done. */
  early: string[];
}

/** Runs a brief with two planners that read at different moments, steps that end in any order, fail, stop and are released. */
function live(nodes: PlanNode[], seed: string, { planner, compare }: Trial): Verdict {
  const chance = chanceFrom(seed);
  const runs: PlanRun[] = [];
  let rev = 0;
  const verdict: Verdict = { ended: null, doubled: [], early: [] };
  const stale: { rev: number; plan: Plan }[] = [];

  const apply = (from: number, p: Plan) => {
    if (compare && from !== rev) return;
    for (const key of p.cancel) {
      const run = runs.find((r) => r.path === key.path && r.round === key.round);
      if (run) run.state = 'cancelled';
    }
    for (const fresh of p.create) {
      if (runs.some((run) => run.path === fresh.path && run.round === fresh.round))
        verdict.doubled.push(`${fresh.path}@${fresh.round}`);
      if (waitsForOpen(nodes, runs, fresh.path)) verdict.early.push(fresh.path);
      runs.push({ path: fresh.path, round: fresh.round, opens: fresh.opens, state: 'running', outcome: null });
    }
    verdict.ended = p.ended;
    if (p.create.length || p.cancel.length) rev++;
  };

  for (let turn = 0; turn < 2_000 && !verdict.ended; turn++) {
    const shuffled = [...runs].sort(() => chance() - 0.5);
    const read = { rev, plan: planner(nodes, shuffled) };
    if (chance() < 0.4) stale.push(read);
    else apply(read.rev, read.plan);
    if (stale.length > 0 && chance() < 0.5) {
      const old = stale.shift()!;
      apply(old.rev, old.plan);
    }
    const live = runs.filter((run) => run.state === 'running' || run.state === 'stopped');
    const run = live[Math.floor(chance() * live.length)];
    if (!run) continue;
    if (run.state === 'stopped') run.state = 'running';
    else if (chance() < 0.15) run.state = 'stopped';
    else {
      run.state = 'done';
      run.outcome = outcomeFor(nodes, run.path, chance);
    }
    rev++;
  }
  return verdict;
}

function outcomeFor(nodes: PlanNode[], path: string, chance: () => number): Outcome {
  const node = locate(nodes, path)!.at(-1)!.node;
  if (node.type === 'when') return { kind: 'branch', to: chance() < 0.5 ? 'then' : 'otherwise' };
  if (node.type === 'each') return { kind: 'turns', keys: ['a', 'b', 'c'].slice(0, Math.floor(chance() * 4)) };
  if (node.type === 'meanwhile') return { kind: 'done' };
  const pick = chance();
  if (pick < 0.04) return { kind: 'set aside' };
  if (pick < 0.12) return { kind: 'again', most: 2 };
  return { kind: 'done' };
}

/** An independent reading of the order: does the sequence before this path hold anything unfinished that it must wait for? */
function waitsForOpen(nodes: PlanNode[], runs: PlanRun[], path: string): boolean {
  const places = locate(nodes, path)!;
  const parts = path.split('/');
  return places.some(({ sequence, at }, depth) => {
    const prefix = parts
      .slice(0, depth)
      .map((part) => `${part}/`)
      .join('');
    return sequence.slice(0, at).some((before) => {
      const head = prefix + before.id;
      const inside = runs.filter(
        (run) =>
          run.path === head ||
          (before.type !== 'meanwhile' && (run.path.startsWith(`${head}/`) || run.path.startsWith(`${head}[`))),
      );
      return inside.some((run) => {
        if (run.state !== 'running' && run.state !== 'stopped') return false;
        if (run.round !== roundAt(nodes, runs, run.path)) return false;
        // A stopped branch that the join may go on without is no reason to wait.
        const around = locate(nodes, run.path)!;
        return !around.some(({ node }) => node.type === 'meanwhile' && node.goOnWithout && run.state === 'stopped');
      });
    });
  });
}

const seeds = fc.string({ minLength: 4, maxLength: 8 });

describe('properties, for any document, order, failures, repeats and two planners', () => {
  test('every path is created once a round, nothing begins early, and the brief ends', () => {
    fc.assert(
      fc.property(documents, seeds, (nodes, seed) => {
        const verdict = live(nodes, seed, { planner: plan, compare: true });
        expect(verdict.doubled).toEqual([]);
        expect(verdict.early).toEqual([]);
        expect(verdict.ended).not.toBeNull();
      }),
      { numRuns: 400 },
    );
  });

  test('the plan does not depend on the order in which runs are read', () => {
    fc.assert(
      fc.property(documents, seeds, (nodes, seed) => {
        const chance = chanceFrom(seed);
        const runs: PlanRun[] = [];
        for (let i = 0; i < 12; i++) {
          for (const fresh of plan(nodes, runs).create)
            runs.push(done(fresh.path, outcomeFor(nodes, fresh.path, chance), fresh.round, fresh.opens));
        }
        expect(plan(nodes, [...runs].reverse())).toEqual(plan(nodes, runs));
      }),
      { numRuns: 200 },
    );
  });

  /** Whether the property above finds a fault in this trial within as many runs. */
  const caught = (trial: Trial, fault: (verdict: Verdict) => boolean): boolean =>
    fc.check(
      fc.property(documents, seeds, (nodes, seed) => !fault(live(nodes, seed, trial))),
      { numRuns: 600, endOnFailure: true },
    ).failed;

  test('the property notices: plans applied without comparing the rev create paths twice', () => {
    expect(caught({ planner: plan, compare: false }, (v) => v.doubled.length > 0)).toBe(true);
  });

  test('the property notices: a planner that does not wait for a join begins steps early', () => {
    const hasty: PlanFunction = (nodes, runs) =>
      plan(
        nodes,
        runs.map((run) =>
          run.path.includes('/') && run.state === 'running'
            ? { ...run, state: 'done' as const, outcome: { kind: 'done' as const } }
            : run,
        ),
      );
    expect(caught({ planner: hasty, compare: true }, (v) => v.early.length > 0)).toBe(true);
  });

  test('the property notices: a planner that forgets a branch never ends', () => {
    const forgetful: PlanFunction = (nodes, runs) => {
      const whole = plan(nodes, runs);
      return { ...whole, create: whole.create.filter((run) => !stepIdOf(run.path).endsWith('3')) };
    };
    expect(caught({ planner: forgetful, compare: true }, (v) => v.ended === null)).toBe(true);
  });
});
