import type { ProcedureDocument } from '@grivo/core';
import type { Ground } from '../../ground/ground.ts';
import type { Sql } from '../../ground/store/database.ts';
import { tellChange } from '../../ground/store/event.ts';
import { addVersion } from '../routines/versions.ts';
import { scheduleLooks } from '../schedules/fire.ts';

export interface NewPipeline {
  name: string;
  document: ProcedureDocument;
  person: string | null;
  openLimit?: number;
}

/** A pipeline with the first version of its procedure; off until somebody switches it on. */
export async function createPipeline(
  ground: Ground,
  { name, document, person, openLimit = 10 }: NewPipeline,
): Promise<string> {
  const id = ground.ids();
  const procedure = ground.ids();
  await ground.db.transaction(async (sql) => {
    await addVersion(sql, procedure, 1, document, person);
    await sql.run('INSERT INTO pipeline (id, name, procedure_id, version, open_limit, most_minutes) VALUES (?)', [
      [id, name, procedure, 1, openLimit, mostMinutes(document)],
    ]);
    await tell(sql, ground, id);
  });
  return id;
}

async function tell(sql: Sql, ground: Ground, pipeline: string): Promise<void> {
  await tellChange(sql, ground, 'pipeline', pipeline);
}

export interface PipelineChange {
  name?: string | undefined;
  document?: ProcedureDocument | undefined;
  openLimit?: number | undefined;
}

/**
 * Changes a pipeline as it was read at `rev`. A changed procedure becomes a new version; briefs under way finish on theirs.
 * @returns the new rev, or null when somebody else changed it meanwhile
 */
export async function changePipeline(
  ground: Ground,
  id: string,
  rev: number,
  { name, document, openLimit }: PipelineChange,
  person: string,
): Promise<number | null> {
  return ground.db.transaction(async (sql) => {
    const [row] = await sql.rows<{ procedure_id: string; version: number; is_on: number; rev: number }>(
      'SELECT procedure_id, version, is_on, rev FROM pipeline WHERE id = ? FOR UPDATE',
      [id],
    );
    if (row?.rev !== rev) return null;
    let { version } = row;
    if (document) {
      const [current] = await sql.rows<{ document: ProcedureDocument }>(
        'SELECT document FROM procedure_version WHERE procedure_id = ? AND n = ?',
        [row.procedure_id, version],
      );
      if (JSON.stringify(current?.document) !== JSON.stringify(document)) {
        version++;
        await addVersion(sql, row.procedure_id, version, document, person);
        await scheduleLooks(ground, sql, id, row.is_on === 1 ? everyMinutes(document) : null);
      }
    }
    if (document) await sql.run('UPDATE pipeline SET most_minutes = ? WHERE id = ?', [mostMinutes(document), id]);
    await sql.run(
      'UPDATE pipeline SET name = COALESCE(?, name), open_limit = COALESCE(?, open_limit), version = ?, rev = rev + 1 WHERE id = ?',
      [name ?? null, openLimit ?? null, version, id],
    );
    await tell(sql, ground, id);
    return rev + 1;
  });
}

function everyMinutes(document: ProcedureDocument): number | null {
  return document.steps.find((step) => step.kind === 'take')?.everyMinutes ?? null;
}

/** Kept beside the pipeline, so that whoever looks for briefs that take too long need not read procedures. */
function mostMinutes(document: ProcedureDocument): number | null {
  return document.steps.find((step) => step.kind === 'take')?.mostMinutes ?? null;
}

/** Switches a pipeline on or off and keeps its looks in step. */
export async function switchPipeline(ground: Ground, id: string, on: boolean): Promise<void> {
  await ground.db.transaction(async (sql) => {
    const [row] = await sql.rows<{ document: ProcedureDocument }>(
      'SELECT v.document FROM pipeline p JOIN procedure_version v ON v.procedure_id = p.procedure_id AND v.n = p.version WHERE p.id = ? FOR UPDATE',
      [id],
    );
    await sql.run('UPDATE pipeline SET is_on = ?, rev = rev + 1 WHERE id = ?', [on ? 1 : 0, id]);
    await scheduleLooks(ground, sql, id, on && row ? everyMinutes(row.document) : null);
    await tell(sql, ground, id);
  });
}

export interface VersionRow {
  n: number;
  by: string | null;
  at: Date;
  document: unknown;
}

export async function versionsOf(sql: Sql, pipeline: string): Promise<VersionRow[]> {
  return sql.rows<VersionRow>(
    'SELECT v.n, p.name AS `by`, v.created_at AS at, v.document FROM pipeline l JOIN procedure_version v ON v.procedure_id = l.procedure_id LEFT JOIN person p ON p.id = v.by_person WHERE l.id = ? ORDER BY v.n DESC LIMIT 200',
    [pipeline],
  );
}

export async function versionOf(sql: Sql, pipeline: string, n: number): Promise<unknown | null> {
  const [row] = await sql.rows<{ document: unknown }>(
    'SELECT v.document FROM pipeline l JOIN procedure_version v ON v.procedure_id = l.procedure_id WHERE l.id = ? AND v.n = ?',
    [pipeline, n],
  );
  return row?.document ?? null;
}

/** The procedure a pipeline has now, and which version that is; null when there is no such pipeline. */
export async function currentProcedure(
  sql: Sql,
  pipeline: string,
): Promise<{ document: ProcedureDocument; version: number } | null> {
  const [row] = await sql.rows<{ document: ProcedureDocument; version: number }>(
    'SELECT v.document, p.version FROM pipeline p JOIN procedure_version v ON v.procedure_id = p.procedure_id AND v.n = p.version WHERE p.id = ?',
    [pipeline],
  );
  return row ?? null;
}
