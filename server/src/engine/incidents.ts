import { causeOf, type Failure } from '@grivo/core';
import type { Ground } from '../ground/ground.ts';
import { countEach } from '../ground/store/counted.ts';
import type { Sql } from '../ground/store/database.ts';
import { limitIsPast } from '../ports/money/limits.ts';
import { briefMoves, runMoves } from './moves.ts';
import { placeAtIncident } from './place.ts';

/**
 * Opens the incident a failure belongs to, or joins the one that is open: one cause at one service is one incident.
 * @param run the step run that failed
 * @returns `released` when the same cause was mended after the step began: it failed on what was before, and may simply
 *   try again; null when the failure concerns a single brief
 */
export async function openIncident(ground: Ground, failure: Failure, run: string): Promise<string | 'released' | null> {
  const cause = causeOf(failure);
  if (!cause) return null;
  const since = await ground.db.rows(
    'SELECT 1 FROM incident i JOIN step_run r ON r.id = ? WHERE i.service = ? AND i.cause = ? AND i.open IS NULL AND i.closed_at >= COALESCE(r.started_at, r.made_at) LIMIT 1',
    [run, cause.service, cause.cause],
  );
  if (since.length > 0) return 'released';
  await ground.db.run('INSERT IGNORE INTO incident (id, service, cause, open, failure) VALUES (?, ?, ?, 1, ?)', [
    ground.ids(),
    cause.service,
    cause.cause,
    JSON.stringify(failure),
  ]);
  await ground.db.run('UPDATE incident SET well = 0 WHERE service = ? AND cause = ? AND open = 1 AND well = 1', [
    cause.service,
    cause.cause,
  ]);
  const [row] = await ground.db.rows<{ id: string }>(
    'SELECT id FROM incident WHERE service = ? AND cause = ? AND open = 1',
    [cause.service, cause.cause],
  );
  return row?.id ?? 'released';
}

/**
 * Closes an incident and lets everything it stopped go on from the same step. A step that failed on what was mended and
 * is only now being recorded finds the incident closed and tries again, so none is left behind.
 */
export async function releaseIncident(ground: Ground, id: string): Promise<number> {
  return ground.db.transaction(async (sql) => {
    const [incident] = await sql.rows('SELECT id FROM incident WHERE id = ? AND open = 1 FOR UPDATE', [id]);
    if (!incident) return 0;
    await sql.run('UPDATE incident SET open = NULL, closed_at = UTC_TIMESTAMP(3) WHERE id = ?', [id]);
    return releaseRuns(sql, ground, 'place = ?', [placeAtIncident(id)], 0);
  });
}

/** Lets go on what a limit stopped whose day or month is over by the desk clock. */
export async function releasePastLimits(ground: Ground): Promise<number> {
  const open = await ground.db.rows<{ id: string; failure: Failure }>(
    "SELECT id, failure FROM incident WHERE cause = 'limit-reached' AND open = 1",
  );
  let released = 0;
  for (const { id, failure } of open)
    if (failure.code === 'limit-reached' && (await limitIsPast(ground, failure)))
      released += await releaseIncident(ground, id);
  return released;
}

/** Tries of a step that a person lets go on by itself: it calls its service though an incident is open there. */
export const TRIES_ANYWAY = -1;

/** Lets one stopped brief go on from where it stopped. */
export async function releaseBrief(ground: Ground, brief: string): Promise<number> {
  return ground.db.transaction((sql) => releaseRuns(sql, ground, 'brief = ?', [brief], TRIES_ANYWAY));
}

async function releaseRuns(
  sql: Sql,
  ground: Ground,
  where: string,
  parameters: unknown[],
  tries: number,
): Promise<number> {
  const runs = await sql.rows<{ id: string; brief: string }>(
    `SELECT id, brief FROM step_run WHERE ${where} AND ${runMoves['go on'].from} FOR UPDATE`,
    parameters,
  );
  if (runs.length === 0) return 0;
  const briefs = [...new Set(runs.map((run) => run.brief))];
  await sql.run(
    `UPDATE step_run SET ${runMoves['go on'].set}, incident = NULL, failure = NULL, lost = 0, tries = ? WHERE id IN (?) AND ${runMoves['go on'].from}`,
    [tries, runs.map((run) => run.id)],
  );
  await sql.run(
    `UPDATE brief SET ${briefMoves.work.set}, in_work_since = UTC_TIMESTAMP(3) WHERE id IN (?) AND ${briefMoves.work.from}`,
    [briefs],
  );
  await sql.run('INSERT INTO event (id, noun, noun_id) VALUES ?', [
    briefs.map((brief) => [ground.ids(), 'brief', brief]),
  ]);
  return runs.length;
}

export interface OpenIncident {
  id: string;
  service: string;
  cause: string;
  failure: Failure;
  opened_at: Date;
  briefs: number;
}

/** Every cause that is open now, with how many briefs it stopped, counted as far as anybody reads the number. */
export async function openIncidents(sql: Sql): Promise<OpenIncident[]> {
  const open = await sql.rows<Omit<OpenIncident, 'briefs'>>(
    'SELECT id, service, cause, failure, opened_at FROM incident WHERE open = 1 ORDER BY id',
  );
  const briefs = await countEach(
    sql,
    open.map(({ id }) => ({ key: id, from: 'step_run WHERE place = ? GROUP BY brief', parameters: [`I${id}`] })),
  );
  return open.map((one) => ({ ...one, briefs: briefs.get(one.id) ?? 0 }));
}
