import { type PlanRun, plan } from '@grivo/core';
import { loadBriefs, Procedures } from '../../src/engine/briefState.ts';
import type { Database } from '../../src/ground/store/database.ts';

/**
 * Whether the planner alone, given the step runs of a brief one after the other as they were made, would have made each
 * of them, and in the end no other. Runs a person opened anew are the only ones it need not have made.
 * @returns what does not agree, as sentences
 */
export async function replayed(db: Database, brief: string): Promise<string[]> {
  const state = (await loadBriefs(db, new Procedures(), [brief])).get(brief)!;
  const rows = [...state.runs].sort((a, b) => (a.id < b.id ? -1 : 1));
  const seen: PlanRun[] = [];
  const wrong: string[] = [];
  for (const row of rows) {
    const made = plan(
      state.nodes,
      // What a later round gave up was still open when this one was made.
      seen.map((run) => (run.state === 'cancelled' ? { ...run, state: 'running' as const } : run)),
    ).create;
    const own = made.some(({ path, round }) => path === row.path && round === row.round);
    if (!own && !row.opens) wrong.push(`${row.path} round ${row.round} was made, and the planner would not have`);
    seen.push(row);
  }
  if (state.standing === 'set aside') return wrong;
  const more = plan(state.nodes, rows).create;
  return [...wrong, ...more.map(({ path, round }) => `${path} round ${round} is missing`)];
}
