import type { PlanNode, PlanRun } from './node.ts';
import { locate, parsePath } from './path.ts';

/**
 * Whether a new round at `from` makes the run at `path` stale: it is the same path, inside the block `from` names, or
 * comes after it. Two turns of a 'for each' do not touch each other. What stands beside a 'meanwhile' in its own
 * sequence does not depend on the branch; what comes after the join does.
 */
export function supersedes(nodes: readonly PlanNode[], from: string, path: string): boolean {
  if (from === path) return true;
  const a = parsePath(from);
  const b = parsePath(path);
  const placesA = locate(nodes, from);
  const placesB = locate(nodes, path);
  if (!placesA || !placesB) return false;
  for (let i = 0; i < Math.min(a.length, b.length); i++) {
    const [sa, sb] = [a[i]!, b[i]!];
    const [pa, pb] = [placesA[i]!, placesB[i]!];
    if (sa.id !== sb.id) {
      if (pa.sequence !== pb.sequence) return false;
      return pb.at > pa.at && pa.node.type !== 'meanwhile';
    }
    if (i === a.length - 1 || i === b.length - 1) break;
    if (sa.turn !== sb.turn) return false;
  }
  // One is inside the other: a new round of a block's head redoes its body, one inside the body leaves the head alone.
  return a.length < b.length;
}

/** The round that counts at a path: the latest opened by anything it depends on, 0 when nothing was. */
export function roundAt(nodes: readonly PlanNode[], runs: readonly PlanRun[], path: string): number {
  let round = 0;
  for (const run of runs) if (run.opens && run.round > round && supersedes(nodes, run.path, path)) round = run.round;
  return round;
}

export function lastRound(runs: readonly PlanRun[]): number {
  return runs.reduce((most, run) => Math.max(most, run.round), 0);
}

/** How often a path was opened anew; it becomes the draw of what the step asks, so that 'again' is not handed the same answer. */
export function drawAt(runs: readonly PlanRun[], path: string): number {
  return runs.filter((run) => run.opens && !run.keepsDraw && run.path === path).length;
}
