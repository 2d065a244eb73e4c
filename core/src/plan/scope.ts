import type { PlanNode, PlanRun } from './node.ts';
import { parsePath } from './path.ts';
import { roundAt } from './rounds.ts';

/** A run whose output a step may read, in the order outputs overlay one another. */
export interface VisibleRun {
  path: string;
  round: number;
  /** Set for what a finished block gives back: the block's id, the name its fields come under. */
  under: string | null;
}

/**
 * The runs whose outputs the step at `path` sees, earliest first. A branch sees what stood when it opened and its own;
 * what it made is seen after the join, under the block's name. A 'when' is no scope of its own, a routine is a closed one.
 */
export function visibleRuns(nodes: readonly PlanNode[], runs: readonly PlanRun[], path: string): VisibleRun[] {
  const done = new Map(runs.filter((run) => run.state === 'done').map((run) => [`${run.path} ${run.round}`, run]));
  const at = (p: string) => done.get(`${p} ${roundAt(nodes, runs, p)}`);
  const out: VisibleRun[] = [];

  /** Takes what was done of a sequence, and of what stands within it. */
  const through = (sequence: readonly PlanNode[], prefix: string, under: string | null, joined: boolean): void => {
    for (const node of sequence) {
      const p = prefix + node.id;
      const run = at(p);
      if (!run) continue;
      if (node.type === 'step') out.push({ path: p, round: run.round, under });
      if (node.type === 'when') {
        const isOtherwise = run.outcome?.kind === 'branch' && run.outcome.to === 'otherwise';
        through(isOtherwise ? node.otherwise : node.holds, `${p}/`, under, true);
      }
      if (node.type === 'each')
        for (const key of run.outcome?.kind === 'turns' ? run.outcome.keys : [])
          through(node.body, `${p}[${key}]/`, under ?? node.id, true);
      if (node.type === 'use') through(node.body, `${p}/`, under ?? node.id, true);
      if (node.type === 'meanwhile' && joined) through(node.body, `${p}/`, under ?? node.id, true);
    }
  };

  const segments = parsePath(path);
  let sequence: readonly PlanNode[] = nodes;
  let prefix = '';
  for (const { id, turn } of segments) {
    const index = sequence.findIndex((node) => node.id === id);
    // What runs meanwhile beside it has not ended for sure.
    through(sequence.slice(0, index), prefix, null, false);
    const node = sequence[index];
    if (!node) break;
    prefix = `${prefix}${id}${turn === null ? '' : `[${turn}]`}/`;
    if (node.type === 'step') break;
    if (node.type === 'when')
      sequence = node.holds.some((n) => n.id === segments[prefix.split('/').length - 1]?.id)
        ? node.holds
        : node.otherwise;
    else sequence = node.body;
    // A routine sees what it is given and what it makes, nothing of what stood before.
    if (node.type === 'use') out.length = 0;
  }
  return out;
}
