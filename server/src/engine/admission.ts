import { plan } from '@grivo/core';
import type { Sql } from '../store/database.ts';
import type { Procedures } from './briefState.ts';
import { laneOf, roleCalled } from './lane.ts';
import type { Ground } from './outside.ts';

interface PipelineRow {
  open_limit: number;
  priority: number;
  admitted_desk: number | null;
  procedure_id: string;
  version: number;
}

export interface Admitted {
  briefs: number;
  lanes: Set<string>;
  /** Desk moment from which the next may be let in, when only the spacing holds it back. */
  nextDesk: number | null;
  /** Whether there was room for more than one transaction lets in. */
  more: boolean;
}

/** Briefs let in by one transaction. */
const MOST_AT_ONCE = 200;

/**
 * Lets waiting briefs of a pipeline into work, oldest first: no more at once than the pipeline and its 'take' allow, and
 * no closer than 'take' spaces them. The pipeline's row is locked, so the count holds with any number of processes.
 */
export async function admit(
  ground: Ground,
  procedures: Procedures,
  pipeline: string,
  serviceFor: (kind: string) => string | null,
): Promise<Admitted> {
  return ground.db.transaction(async (sql) => {
    const none: Admitted = { briefs: 0, lanes: new Set(), nextDesk: null, more: false };
    const [row] = await sql.rows<PipelineRow>(
      'SELECT open_limit, priority, admitted_desk, procedure_id, version FROM pipeline WHERE id = ? FOR UPDATE',
      [pipeline],
    );
    if (!row) return none;
    const { document } = await procedures.get(sql, row.procedure_id, row.version);
    const take = document.steps.find((step) => step.kind === 'take');
    const now = ground.desk.now();
    const spaced =
      take && take.apartMinutes > 0 && row.admitted_desk !== null ? row.admitted_desk + take.apartMinutes * 60_000 : 0;
    if (spaced > now) return { ...none, nextDesk: spaced };
    const [{ n } = { n: 0 }] = await sql.rows<{ n: number }>(
      "SELECT COUNT(*) AS n FROM brief WHERE pipeline = ? AND trial = 0 AND standing = 'in work'",
      [pipeline],
    );
    const room = Math.min(row.open_limit, take?.atOnce ?? row.open_limit) - n;
    const most = take && take.apartMinutes > 0 ? Math.min(room, 1) : Math.min(room, MOST_AT_ONCE);
    if (most <= 0) return none;
    const briefs = await sql.rows<{ id: string; procedure_id: string; version: number }>(
      "SELECT b.id, p.procedure_id, p.version FROM brief b JOIN brief_pin p ON p.brief = b.id WHERE b.pipeline = ? AND b.trial = 0 AND b.standing = 'waiting' ORDER BY b.priority, b.id LIMIT ?",
      [pipeline, most],
    );
    if (briefs.length === 0) return none;
    const lanes = await begin(sql, ground, procedures, briefs, row.priority, serviceFor);
    await sql.run('UPDATE pipeline SET admitted_desk = ? WHERE id = ?', [now, pipeline]);
    const nextDesk = take && take.apartMinutes > 0 ? now + take.apartMinutes * 60_000 : null;
    return { briefs: briefs.length, lanes, nextDesk, more: briefs.length === MOST_AT_ONCE && room > MOST_AT_ONCE };
  });
}

/** Makes the first step runs of briefs and puts them in work. */
export async function begin(
  sql: Sql,
  ground: Ground,
  procedures: Procedures,
  briefs: readonly { id: string; procedure_id: string; version: number }[],
  priority: number,
  serviceFor: (kind: string) => string | null,
): Promise<Set<string>> {
  const lanes = new Set<string>();
  const rows: unknown[][] = [];
  for (const brief of briefs) {
    const { nodes, steps } = await procedures.get(sql, brief.procedure_id, brief.version);
    for (const { path, round, node } of plan(nodes, []).create) {
      const kind = steps.get(node.id)?.kind ?? node.type;
      const lane = laneOf(roleCalled(kind) ? serviceFor(kind) : null, priority);
      lanes.add(lane);
      rows.push([ground.ids(), brief.id, path, round, kind, 'ready', lane, lane]);
    }
  }
  const ids = briefs.map((brief) => brief.id);
  await sql.run("UPDATE brief SET standing = 'in work', rev = rev + 1 WHERE id IN (?)", [ids]);
  if (rows.length > 0)
    await sql.run('INSERT INTO step_run (id, brief, path, round, kind, state, lane, home_lane) VALUES ?', [rows]);
  await sql.run('INSERT INTO event (id, noun, noun_id) VALUES ?', [ids.map((id) => [ground.ids(), 'brief', id])]);
  return lanes;
}

/** Pipelines with briefs waiting to be let in. */
export async function pipelinesWaiting(sql: Sql): Promise<string[]> {
  const rows = await sql.rows<{ id: string }>(
    "SELECT p.id FROM pipeline p WHERE EXISTS (SELECT 1 FROM brief b WHERE b.pipeline = p.id AND b.trial = 0 AND b.standing = 'waiting')",
  );
  return rows.map((row) => row.id);
}
