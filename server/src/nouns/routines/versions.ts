import { createHash } from 'node:crypto';
import type { ProcedureDocument } from '@grivo/core';
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
