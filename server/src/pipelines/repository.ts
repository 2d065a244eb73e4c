import { createHash } from 'node:crypto';
import type { ProcedureDocument } from '@grivo/core';
import type { Ground } from '../engine/outside.ts';
import { scheduleLooks } from '../schedules/fire.ts';
import type { Sql } from '../store/database.ts';

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
    await sql.run('INSERT INTO pipeline (id, name, procedure_id, version, open_limit) VALUES (?)', [
      [id, name, procedure, 1, openLimit],
    ]);
  });
  return id;
}

async function addVersion(
  sql: Sql,
  procedure: string,
  n: number,
  document: ProcedureDocument,
  person: string | null,
): Promise<void> {
  const text = JSON.stringify(document);
  await sql.run('INSERT INTO procedure_version (procedure_id, n, document, digest, by_person) VALUES (?)', [
    [procedure, n, text, createHash('sha256').update(text).digest('hex'), person],
  ]);
}

/** Switches a pipeline on or off and keeps its looks in step. */
export async function switchPipeline(ground: Ground, id: string, on: boolean): Promise<void> {
  await ground.db.transaction(async (sql) => {
    const [row] = await sql.rows<{ document: ProcedureDocument }>(
      'SELECT v.document FROM pipeline p JOIN procedure_version v ON v.procedure_id = p.procedure_id AND v.n = p.version WHERE p.id = ? FOR UPDATE',
      [id],
    );
    const take = row?.document.steps.find((step) => step.kind === 'take');
    await sql.run('UPDATE pipeline SET is_on = ?, rev = rev + 1 WHERE id = ?', [on ? 1 : 0, id]);
    await scheduleLooks(ground, sql, id, on && take ? take.everyMinutes : null);
  });
}
