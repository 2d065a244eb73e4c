import type { PlanNode } from './node.ts';

/** One part of a path: a node's id and, inside a 'for each', the key of the turn. `s9[de]/s2` has two. */
export interface Segment {
  id: string;
  turn: string | null;
}

export function parsePath(path: string): Segment[] {
  return path.split('/').map((part) => {
    const bracket = part.indexOf('[');
    return bracket < 0 ? { id: part, turn: null } : { id: part.slice(0, bracket), turn: part.slice(bracket + 1, -1) };
  });
}

export function stepIdOf(path: string): string {
  const segments = parsePath(path);
  return segments[segments.length - 1]!.id;
}

/** The sequences directly inside a node. */
export function sequencesOf(node: PlanNode): PlanNode[][] {
  switch (node.type) {
    case 'step':
      return [];
    case 'when':
      return [node.holds, node.otherwise];
    case 'each':
    case 'use':
    case 'meanwhile':
      return [node.body];
  }
}

/** The node a path names, with the sequence it stands in at every level; null when the document has no such path. */
export function locate(
  nodes: readonly PlanNode[],
  path: string,
): { sequence: readonly PlanNode[]; at: number; node: PlanNode }[] | null {
  const out: { sequence: readonly PlanNode[]; at: number; node: PlanNode }[] = [];
  let sequences: readonly (readonly PlanNode[])[] = [nodes];
  for (const { id } of parsePath(path)) {
    let found = false;
    for (const sequence of sequences) {
      const at = sequence.findIndex((node) => node.id === id);
      const node = sequence[at];
      if (!node) continue;
      out.push({ sequence, at, node });
      sequences = sequencesOf(node);
      found = true;
      break;
    }
    if (!found) return null;
  }
  return out;
}

/**
 * The line an article made at this path belongs to: '' for the main article, otherwise the innermost 'meanwhile' branch
 * or 'for each' turn around the path. 'When' is no branch.
 */
export function lineOf(nodes: readonly PlanNode[], path: string): string {
  const places = locate(nodes, path);
  if (!places) return '';
  const segments = path.split('/');
  for (let i = segments.length - 2; i >= 0; i--) {
    const type = places[i]?.node.type;
    if (type === 'each' || type === 'meanwhile') return segments.slice(0, i + 1).join('/');
  }
  return '';
}
