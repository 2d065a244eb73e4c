import { SourceSettings } from '@grivo/contract';
import { type Closeness, headOf, type ProcedureDocument } from '@grivo/core';
import type { Procedures } from '../../engine/briefState.ts';
import type { ReadingRoom } from '../../ground/reading/room.ts';
import type { Sql } from '../../ground/store/database.ts';
import type { Tools } from '../../ports/tools.ts';
import { languageOfPhrases, measuresIn } from './keywords.ts';
import type { ItemRow, Unit } from './units.ts';

/** Phrases grouped at once, the first of those not taken and the last of those taken; of a longer list the rest comes later. */
const MOST_FRESH = 8_000;
const MOST_TAKEN = 8_000;

interface GroupedRow extends ItemRow {
  results: string[] | null;
  taken: number;
}

/**
 * The groups of a list of which a pipeline has taken nothing yet, each with the phrase it is called by first, in the order
 * of their first phrases. Phrases it took are grouped along, so that a phrase which joins a group that has its article
 * makes no second one.
 */
async function groupsOf(
  sql: Sql,
  reader: ReadingRoom,
  pipeline: string,
  source: string,
  closeness: Closeness,
): Promise<Unit[]> {
  const some = (taken: 0 | 1, order: string, most: number) =>
    sql.rows<GroupedRow>(
      `SELECT i.id, i.source, i.fingerprint, i.subject, i.fields, i.results, ${taken} AS taken FROM item i
       WHERE i.source = ? AND i.left_out IS NULL AND i.gone = 0 AND ${taken === 1 ? '' : 'NOT '}EXISTS (SELECT 1 FROM taken t WHERE t.pipeline = ? AND t.fingerprint = i.fingerprint)
       ORDER BY i.id ${order} LIMIT ?`,
      [source, pipeline, most],
    );
  const rows = [...(await some(1, 'DESC', MOST_TAKEN)), ...(await some(0, 'ASC', MOST_FRESH))].sort((a, b) =>
    a.id < b.id ? -1 : 1,
  );
  const language = languageOfPhrases(rows.map(({ subject }) => subject));
  if (rows.length === 0) return [];
  const read = await reader.read('groups', {
    phrases: rows.map(({ subject, results }) => ({ phrase: subject, results: results ?? [] })),
    closeness,
    language,
  });
  // What cannot be grouped waits: taken one by one, it would make an article for each phrase.
  if (!read.ok) return [];
  return read.value
    .map((group) => group.map((i) => rows[i]!))
    .filter((group) => group.every(({ taken }) => Number(taken) === 0))
    .sort((a, b) => (a[0]!.id < b[0]!.id ? -1 : 1))
    .map((group) => {
      const head = headOf(
        group.map(({ subject, fields }) => ({ phrase: subject, volume: measuresIn(fields).volume })),
        language,
      );
      return [group[head]!, ...group.filter((_, i) => i !== head)];
    });
}

/** Groups of the lists a pipeline takes from, by list. */
export type Groups = ReadonlyMap<string, readonly Unit[]>;

/**
 * The groups of those lists of a pipeline that are grouped. Made before anything is locked, since grouping takes long;
 * whoever takes of them looks again whether they still stand.
 */
export async function groupsFor(
  { ground, reader }: Pick<Tools, 'ground' | 'reader'>,
  procedures: Procedures,
  pipeline: string,
): Promise<Groups> {
  const { db } = ground;
  const [row] = await db.rows<{ procedure_id: string; version: number }>(
    'SELECT procedure_id, version FROM pipeline WHERE id = ?',
    [pipeline],
  );
  if (!row) return new Map();
  const { document } = await procedures.get(db, row.procedure_id, row.version);
  return groupsBy({ ground, reader }, pipeline, document);
}

/** The same by a procedure that need not be saved. */
export async function groupsBy(
  { ground: { db }, reader }: Pick<Tools, 'ground' | 'reader'>,
  pipeline: string,
  document: ProcedureDocument,
): Promise<Groups> {
  const out = new Map<string, readonly Unit[]>();
  const take = document.steps.find((step) => step.kind === 'take');
  if (!take || take.sources.length === 0) return out;
  const lists = await db.rows<{ id: string; settings: unknown }>(
    "SELECT id, settings FROM source WHERE id IN (?) AND kind = 'keywords'",
    [take.sources],
  );
  for (const { id, settings } of lists) {
    const read = SourceSettings.parse(settings);
    if (read.kind === 'keywords' && read.group !== 'each')
      out.set(id, await groupsOf(db, reader, pipeline, id, read.group));
  }
  return out;
}

/** Those of groups that still stand: nothing of them was taken or left out meanwhile. */
export async function stillWhole(sql: Sql, pipeline: string, units: readonly Unit[], most: number): Promise<Unit[]> {
  const out: Unit[] = [];
  for (let at = 0; at < units.length && out.length < most; at += LOOKED_AT) {
    const batch = units.slice(at, at + LOOKED_AT);
    const rows = await sql.rows<{ id: string }>(
      `SELECT i.id FROM item i WHERE i.id IN (?) AND i.left_out IS NULL
       AND NOT EXISTS (SELECT 1 FROM taken t WHERE t.pipeline = ? AND t.fingerprint = i.fingerprint)`,
      [batch.flat().map(({ id }) => id), pipeline],
    );
    const open = new Set(rows.map(({ id }) => id));
    out.push(...batch.filter((unit) => unit.every(({ id }) => open.has(id))));
  }
  return out.slice(0, most);
}

const LOOKED_AT = 200;
