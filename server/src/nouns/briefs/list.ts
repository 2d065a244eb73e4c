import type { Brief, BriefStanding, BriefWhole, StepRun } from '@grivo/contract';
import { type Failure, wordsOf } from '@grivo/core';
import type { Sql } from '../../ground/store/database.ts';
import { ofLabel } from '../labels/repository.ts';

const COLUMNS = 'id, pipeline, standing, subject, made_desk AS madeDesk, ended_desk AS endedDesk, rev';

/** A page of briefs, newest first. */
export async function briefsPage(
  sql: Sql,
  {
    label,
    pipeline,
    standing,
  }: { label?: string | undefined; pipeline?: string | undefined; standing?: BriefStanding | undefined },
  before: string | undefined,
  limit: number,
): Promise<Brief[]> {
  return sql.rows<Brief>(
    `SELECT ${COLUMNS} FROM brief WHERE trial = 0 AND id < ?${pipeline ? ' AND pipeline = ?' : ''}${standing ? ' AND standing = ?' : ''}${label ? ` AND ${ofLabel({ pipeline: 'pipeline' })}` : ''} ORDER BY id DESC LIMIT ?`,
    [before ?? 'z', ...(pipeline ? [pipeline] : []), ...(standing ? [standing] : []), ...(label ? [label] : []), limit],
  );
}

export type OneBrief = Brief & { trial: number; fields: Record<string, unknown> };

export async function getBrief(sql: Sql, id: string): Promise<OneBrief | null> {
  const [row] = await sql.rows<OneBrief>(`SELECT ${COLUMNS}, trial, fields FROM brief WHERE id = ?`, [id]);
  return row ?? null;
}

/** A step run as it is kept, what stopped it not in words yet. */
export type RunRow = Omit<StepRun, 'failure'> & { brief: string; failure: Failure | null };

const RUNS = `SELECT r.id, r.brief, r.path, r.round, r.kind, r.state, r.attempts, r.failure, r.incident, r.due_desk AS dueDesk,
    COALESCE(r.started_at, IF(r.attempts > 0, r.made_at, NULL)) AS startedAt, r.ended_at AS endedAt, COALESCE(o.decided, o.proposed) AS gave,
    COALESCE((SELECT SUM(l.micros) FROM ledger l WHERE l.step_run = r.id), 0) AS micros
  FROM step_run r LEFT JOIN output o ON o.step_run = r.id`;

const numbered = (run: RunRow): RunRow => ({ ...run, micros: Number(run.micros) });

export async function runsOf(sql: Sql, brief: string): Promise<RunRow[]> {
  return (await sql.rows<RunRow>(`${RUNS} WHERE r.brief = ? ORDER BY r.id`, [brief])).map(numbered);
}

export async function getRun(sql: Sql, id: string): Promise<RunRow | null> {
  const [row] = await sql.rows<RunRow>(`${RUNS} WHERE r.id = ?`, [id]);
  return row ? numbered(row) : null;
}

/** Whether a step of a brief has been run, by its path. */
export async function hasRun(sql: Sql, brief: string, path: string): Promise<boolean> {
  return (await sql.rows('SELECT 1 FROM step_run WHERE brief = ? AND path = ? LIMIT 1', [brief, path])).length > 0;
}

/** A brief with all that was done for it. */
export async function briefWhole(
  sql: Sql,
  { trial, ...brief }: OneBrief,
  nameOf: (service: string) => string,
): Promise<BriefWhole> {
  const [runs, [pin], articles, items] = await Promise.all([
    runsOf(sql, brief.id),
    sql.rows<{ version: number }>('SELECT version FROM brief_pin WHERE brief = ? AND main = 1', [brief.id]),
    sql.rows<{ id: string; title: string; standing: string }>(
      'SELECT id, title, standing FROM article WHERE brief = ? ORDER BY id',
      [brief.id],
    ),
    sql.rows<{ item: string }>('SELECT item FROM brief_item WHERE brief = ? ORDER BY item', [brief.id]),
  ]);
  return {
    ...brief,
    trial: trial === 1,
    items: items.map(({ item }) => item),
    version: pin?.version ?? 0,
    micros: runs.reduce((sum, run) => sum + run.micros, 0),
    runs: runs.map(({ brief: _, ...run }) => ({ ...run, failure: run.failure && wordsOf(run.failure, nameOf) })),
    articles,
  };
}
