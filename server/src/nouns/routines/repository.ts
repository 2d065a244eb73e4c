import { ProcedureDocument, type RoutineForm, routineCycle, routinesUsed } from '@grivo/core';
import type { Ground } from '../../ground/ground.ts';
import type { Sql } from '../../ground/store/database.ts';
import { addVersion } from './versions.ts';

export interface RoutineRow {
  id: string;
  name: string;
  version: number;
  rev: number;
  document: ProcedureDocument;
}

interface Stored extends Omit<RoutineRow, 'document'> {
  procedure_id: string;
  document: unknown;
}

const SELECT =
  'SELECT r.id, r.name, r.version, r.rev, r.procedure_id, v.document FROM routine r JOIN procedure_version v ON v.procedure_id = r.procedure_id AND v.n = r.version';

/** Every routine with its current document. */
export async function listRoutines(sql: Sql): Promise<RoutineRow[]> {
  const rows = await sql.rows<Stored>(`${SELECT} ORDER BY r.name`);
  return rows.map(({ procedure_id: _, ...row }) => ({ ...row, document: ProcedureDocument.parse(row.document) }));
}

/** Pipelines and routines, with the routines their procedures use now. */
export async function usersOf(
  sql: Sql,
  routines: readonly RoutineRow[],
): Promise<{ noun: 'pipeline' | 'routine'; id: string; name: string; uses: string[] }[]> {
  const pipelines = await sql.rows<{ id: string; name: string; document: unknown }>(
    'SELECT p.id, p.name, v.document FROM pipeline p JOIN procedure_version v ON v.procedure_id = p.procedure_id AND v.n = p.version ORDER BY p.name',
  );
  const uses = (document: unknown) => routinesUsed(ProcedureDocument.parse(document));
  return [
    ...pipelines.map(({ id, name, document }) => ({ noun: 'pipeline' as const, id, name, uses: uses(document) })),
    ...routines.map(({ id, name, document }) => ({ noun: 'routine' as const, id, name, uses: uses(document) })),
  ];
}

/** What the checks must know of routines. */
export function formOf(routines: readonly RoutineRow[]): (id: string) => RoutineForm | null {
  return (id) => {
    const document = routines.find((routine) => routine.id === id)?.document;
    return document ? { inputs: document.inputs ?? [], outputs: document.outputs ?? [] } : null;
  };
}

/** The way round a cycle a routine would close, by names; null when it closes none. */
export function cycleOf(routines: readonly RoutineRow[], id: string, document: ProcedureDocument): string[] | null {
  const cycle = routineCycle(
    id,
    document,
    (other) => routines.find((routine) => routine.id === other)?.document ?? null,
  );
  return cycle?.map((at) => routines.find((routine) => routine.id === at)?.name ?? 'this routine') ?? null;
}

export async function createRoutine(
  ground: Ground,
  { id, name, document, person }: { id: string; name: string; document: ProcedureDocument; person: string },
): Promise<void> {
  const procedure = ground.ids();
  await ground.db.transaction(async (sql) => {
    await addVersion(sql, procedure, 1, document, person);
    await sql.run('INSERT INTO routine (id, name, procedure_id, version) VALUES (?, ?, ?, 1)', [id, name, procedure]);
  });
}

/**
 * Changes a routine as it was read at `rev`; a changed document is a new version. Briefs under way finish on theirs.
 * @returns whether nobody else had changed it meanwhile
 */
export async function changeRoutine(
  ground: Ground,
  id: string,
  rev: number,
  { name, document, person }: { name: string; document: ProcedureDocument; person: string },
): Promise<boolean> {
  return ground.db.transaction(async (sql) => {
    const [row] = await sql.rows<{ procedure_id: string; version: number; rev: number }>(
      'SELECT procedure_id, version, rev FROM routine WHERE id = ? FOR UPDATE',
      [id],
    );
    if (row?.rev !== rev) return false;
    await addVersion(sql, row.procedure_id, row.version + 1, document, person);
    await sql.run('UPDATE routine SET name = ?, version = version + 1, rev = rev + 1 WHERE id = ?', [name, id]);
    return true;
  });
}

/** The versions of the routines a document uses, and of those they use, as they are now: what a new brief is pinned to. */
export async function pinsFor(
  sql: Sql,
  document: ProcedureDocument,
): Promise<{ procedure_id: string; version: number }[]> {
  const found = new Map<string, { procedure_id: string; version: number }>();
  let wanted = routinesUsed(document);
  while (wanted.length > 0) {
    const rows = await sql.rows<Stored>(`${SELECT} WHERE r.id IN (?)`, [wanted]);
    for (const { id, procedure_id, version } of rows) found.set(id, { procedure_id, version });
    wanted = [...new Set(rows.flatMap((row) => routinesUsed(ProcedureDocument.parse(row.document))))].filter(
      (id) => !found.has(id),
    );
  }
  return [...found.values()];
}
