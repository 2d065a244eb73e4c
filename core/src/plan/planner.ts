import type { NewRun, Plan, PlanNode, PlanRun, RunKey } from './node.ts';
import { drawAt, lastRound, roundAt } from './rounds.ts';

/** `stuck`: open, and every open run of it is stopped. */
type Status = 'open' | 'stuck' | 'done' | 'set aside';

const OPEN = new Set(['ready', 'running', 'waiting', 'held', 'stopped']);

/**
 * What to do next with a brief: pure, and the same for the same runs in any order. Whoever applies the plan must do so
 * only if no run changed since it read them (the brief's rev), and create each (path, round) once.
 */
export function plan(nodes: readonly PlanNode[], runs: readonly PlanRun[]): Plan {
  return new Walk(nodes, runs).plan();
}

class Walk {
  private readonly byKey = new Map<string, PlanRun>();
  private readonly create: NewRun[] = [];
  private readonly cancel = new Map<string, RunKey>();
  private readonly hasRounds: boolean;

  constructor(
    private readonly nodes: readonly PlanNode[],
    private readonly runs: readonly PlanRun[],
  ) {
    for (const run of runs) this.byKey.set(keyOf(run), run);
    this.hasRounds = runs.some((run) => run.opens);
  }

  plan(): Plan {
    const status = this.sequence(this.nodes, '');
    for (const run of this.runs) {
      if (OPEN.has(run.state) && run.round !== this.roundAt(run.path))
        this.cancel.set(keyOf(run), { path: run.path, round: run.round });
    }
    const create = status === 'set aside' ? [] : this.create;
    const settled =
      create.length === 0 && this.runs.every((run) => !OPEN.has(run.state) || this.cancel.has(keyOf(run)));
    const ended = settled && (status === 'done' || status === 'set aside') ? status : null;
    return { create, cancel: [...this.cancel.values()], ended };
  }

  private sequence(nodes: readonly PlanNode[], prefix: string): Status {
    const branches: { status: Status; goOnWithout: boolean }[] = [];
    let line: Status = 'done';
    for (const [at, node] of nodes.entries()) {
      if (node.off) continue;
      line = this.node(node, prefix, nodes, at, branches);
      if (line !== 'done') break;
    }
    if (line === 'set aside') {
      this.cancelUnder(prefix);
      return line;
    }
    const waiting = branches.filter((b) => b.status === 'open' || (b.status === 'stuck' && !b.goOnWithout));
    const all = line === 'done' ? waiting.map((b) => b.status) : [line, ...waiting.map((b) => b.status)];
    if (all.length === 0) return 'done';
    return all.every((status) => status === 'stuck') ? 'stuck' : 'open';
  }

  private node(
    node: PlanNode,
    prefix: string,
    sequence: readonly PlanNode[],
    at: number,
    branches: { status: Status; goOnWithout: boolean }[],
  ): Status {
    const path = prefix + node.id;
    const run = this.current(path);
    if (!run) {
      this.create.push({ path, round: this.roundAt(path), opens: false, node });
      return 'open';
    }
    // Cancelled in its own round: a line around it was set aside.
    if (run.state === 'cancelled') return 'set aside';
    if (run.state !== 'done') return run.state === 'stopped' ? 'stuck' : 'open';
    const outcome = run.outcome ?? { kind: 'done' };
    if (outcome.kind === 'set aside') return 'set aside';
    if (outcome.kind === 'again') return this.again(prefix, sequence, at, outcome.most);
    switch (node.type) {
      case 'step':
        return 'done';
      case 'when':
        return this.sequence(
          outcome.kind === 'branch' && outcome.to === 'otherwise' ? node.otherwise : node.holds,
          `${path}/`,
        );
      case 'each':
        return this.turns(node.body, path, outcome.kind === 'turns' ? outcome.keys : []);
      case 'use':
        return this.sequence(node.body, `${path}/`);
      case 'meanwhile':
        branches.push({ status: this.sequence(node.body, `${path}/`), goOnWithout: node.goOnWithout });
        return 'done';
    }
  }

  /** Turns run beside each other; one that is set aside ends alone. */
  private turns(body: readonly PlanNode[], path: string, keys: readonly string[]): Status {
    const open = keys
      .map((key) => this.sequence(body, `${path}[${key}]/`))
      .filter((status) => status === 'open' || status === 'stuck');
    if (open.length === 0) return 'done';
    return open.every((status) => status === 'stuck') ? 'stuck' : 'open';
  }

  private again(prefix: string, sequence: readonly PlanNode[], at: number, most: number): Status {
    const writes = sequence.slice(0, at).findLast((node) => node.type === 'step' && node.writes && !node.off);
    if (!writes) return 'set aside';
    const path = prefix + writes.id;
    const times = drawAt(this.runs, path);
    if (times >= most) return 'set aside';
    this.create.push({ path, round: lastRound(this.runs) + 1, opens: true, node: writes });
    return 'open';
  }

  private cancelUnder(prefix: string): void {
    for (const run of this.runs) {
      if (run.path.startsWith(prefix) && OPEN.has(run.state))
        this.cancel.set(keyOf(run), { path: run.path, round: run.round });
    }
    for (let i = this.create.length - 1; i >= 0; i--)
      if (this.create[i]!.path.startsWith(prefix)) this.create.splice(i, 1);
  }

  private current(path: string): PlanRun | undefined {
    return this.byKey.get(`${path} ${this.roundAt(path)}`);
  }

  private roundAt(path: string): number {
    return this.hasRounds ? roundAt(this.nodes, this.runs, path) : 0;
  }
}

function keyOf(run: RunKey): string {
  return `${run.path} ${run.round}`;
}
