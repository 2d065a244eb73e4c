import { createHash } from 'node:crypto';
import { ProcedureDocument } from '@grivo/core';
import type { Sql } from '../../ground/store/database.ts';

/** Adds a version of a procedure, of a pipeline or a routine; versions are never changed. */
export async function addVersion(
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

/** The procedure a brief goes by: the version its pipeline had when the brief was taken, or was brought to since. */
export async function procedureOfBrief(sql: Sql, brief: string): Promise<ProcedureDocument | null> {
  const [row] = await sql.rows<{ document: unknown }>(
    'SELECT v.document FROM brief_pin p JOIN procedure_version v ON v.procedure_id = p.procedure_id AND v.n = p.version WHERE p.brief = ? AND p.main = 1',
    [brief],
  );
  return row ? ProcedureDocument.parse(row.document) : null;
}
