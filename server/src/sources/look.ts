import type { ProcedureDocument } from '@grivo/core';
import type { Procedures } from '../engine/briefState.ts';
import type { Ground } from '../engine/outside.ts';
import { pinsFor } from '../routines/repository.ts';
import type { Sql } from '../store/database.ts';

interface PipelineRow {
  id: string;
  procedure_id: string;
  version: number;
  priority: number;
}

export interface ItemRow {
  id: string;
  source: string;
  fingerprint: string;
  subject: string;
  fields: Record<string, unknown>;
}

/** What a person says when taking by hand. */
export interface TakeWords {
  /** Given to the procedure's inputs. */
  inputs: Record<string, string>;
  /** Hold after every step. */
  byHand: boolean;
  /** The part of a recording that is to be used, in seconds; null is all of it. */
  range: { from: number; to: number } | null;
}

const NO_WORDS: TakeWords = { inputs: {}, byHand: false, range: null };

export interface Taken {
  found: number;
  briefs: string[];
  /** Where each source is to be gone on from, when there was more than one transaction takes. */
  more: ReadonlyMap<string, string> | null;
}

const NOTHING: Taken = { found: 0, briefs: [], more: null };

/** Items one transaction takes. */
const AT_ONCE = 1_000;

/** Takes all that is new, a transaction after the other. What was taken before one failed stays taken. */
export async function takeAllNew(
  ground: Ground,
  procedures: Procedures,
  pipeline: string,
  words: TakeWords = NO_WORDS,
  from: ReadonlyMap<string, string> | null = null,
): Promise<Omit<Taken, 'more'>> {
  const briefs: string[] = [];
  let found = 0;
  for (let after = from; ; ) {
    const taken = await ground.db.transaction((sql) => lookAndTake(sql, ground, procedures, pipeline, words, after));
    briefs.push(...taken.briefs);
    found += taken.found;
    if (taken.more === null) return { found, briefs };
    after = taken.more;
  }
}

/** One look at the sources of a pipeline: takes what is new, as many as its 'take' allows. */
export async function lookAndTake(
  sql: Sql,
  ground: Ground,
  procedures: Procedures,
  pipelineId: string,
  words: TakeWords = NO_WORDS,
  after: ReadonlyMap<string, string> | null = null,
): Promise<Taken> {
  const pipeline = await lockPipeline(sql, pipelineId);
  if (!pipeline) return NOTHING;
  const { document } = await procedures.get(sql, pipeline.procedure_id, pipeline.version);
  const take = document.steps.find((step) => step.kind === 'take');
  if (!take || take.sources.length === 0) return NOTHING;
  const found: ItemRow[] = [];
  const more = new Map(after);
  let full = false;
  for (const source of take.sources) {
    const room = (take.most ?? AT_ONCE) - found.length;
    const offered = await newItems(sql, pipeline.id, source, room, after?.get(source) ?? '');
    if (offered.length > 0) more.set(source, offered.at(-1)!.id);
    full ||= take.most === null && offered.length === room;
    // A round-up waits until so many are new.
    const fresh = take.gather === null ? offered : offered.slice(0, offered.length - (offered.length % take.gather));
    if (after !== null && fresh.length === 0) continue;
    await sql.run('INSERT INTO look (id, source, pipeline, at_desk, found, taken) VALUES (?, ?, ?, ?, ?, ?)', [
      ground.ids(),
      source,
      pipeline.id,
      ground.desk.now(),
      fresh.length,
      fresh.length,
    ]);
    found.push(...fresh);
  }
  const briefs = await takeItems(sql, ground, { ...pipeline, document }, found, words);
  return { found: found.length, briefs, more: full ? more : null };
}

/** Chosen items into a pipeline, whether or not it would have found them; those it took before are left out. */
export async function takeChosen(
  sql: Sql,
  ground: Ground,
  procedures: Procedures,
  pipelineId: string,
  items: readonly string[],
  words: TakeWords = NO_WORDS,
): Promise<Omit<Taken, 'more'>> {
  const pipeline = await lockPipeline(sql, pipelineId);
  if (!pipeline || items.length === 0) return { found: 0, briefs: [] };
  const rows = await sql.rows<ItemRow>(
    'SELECT id, source, fingerprint, subject, fields FROM item WHERE id IN (?) ORDER BY id',
    [items],
  );
  const { document } = await procedures.get(sql, pipeline.procedure_id, pipeline.version);
  return { found: rows.length, briefs: await takeItems(sql, ground, { ...pipeline, document }, rows, words) };
}

async function lockPipeline(sql: Sql, id: string): Promise<PipelineRow | null> {
  const [row] = await sql.rows<PipelineRow>(
    'SELECT id, procedure_id, version, priority FROM pipeline WHERE id = ? FOR UPDATE',
    [id],
  );
  return row ?? null;
}

async function newItems(sql: Sql, pipeline: string, source: string, most: number, after: string): Promise<ItemRow[]> {
  if (most <= 0) return [];
  return sql.rows<ItemRow>(
    `SELECT i.id, i.source, i.fingerprint, i.subject, i.fields FROM item i
     WHERE i.source = ? AND i.left_out IS NULL AND i.id > ? AND NOT EXISTS (SELECT 1 FROM taken t WHERE t.pipeline = ? AND t.fingerprint = i.fingerprint) ORDER BY i.id LIMIT ?`,
    [source, after, pipeline, most],
  );
}

const BATCH = 500;

async function takeItems(
  sql: Sql,
  ground: Ground,
  pipeline: PipelineRow & { document: ProcedureDocument },
  items: readonly ItemRow[],
  { inputs, byHand, range }: TakeWords,
): Promise<string[]> {
  const out: string[] = [];
  const given = Object.fromEntries(
    (pipeline.document.inputs ?? []).map(({ name, otherwise }) => [name, inputs[name] ?? otherwise ?? '']),
  );
  const routines = items.length === 0 ? [] : await pinsFor(sql, pipeline.document);
  for (let at = 0; at < items.length; at += BATCH) {
    const prints = new Map(items.slice(at, at + BATCH).map((item) => [item.fingerprint, item]));
    const had = await sql.rows<{ fingerprint: string }>(
      'SELECT fingerprint FROM taken WHERE pipeline = ? AND fingerprint IN (?)',
      [pipeline.id, [...prints.keys()]],
    );
    for (const { fingerprint } of had) prints.delete(fingerprint);
    const each = gathered([...prints.values()], pipeline.document).map((together) => ({
      together,
      brief: ground.ids(),
    }));
    if (each.length === 0) continue;
    const now = ground.desk.now();
    const pairs = each.flatMap(({ together, brief }) => together.map((item) => ({ item, brief })));
    await sql.run('INSERT INTO taken (pipeline, fingerprint, item, brief) VALUES ?', [
      pairs.map(({ item, brief }) => [pipeline.id, item.fingerprint, item.id, brief]),
    ]);
    await sql.run(
      'INSERT INTO brief (id, pipeline, standing, seed, subject, fields, priority, made_desk, by_hand) VALUES ?',
      [
        each.map(({ brief, together }) => [
          brief,
          pipeline.id,
          'waiting',
          brief,
          subjectOf(together),
          JSON.stringify({ ...fieldsOf(together), ...given, ...(range ? { range } : {}) }),
          pipeline.priority,
          now,
          byHand ? 1 : 0,
        ]),
      ],
    );
    await sql.run('INSERT INTO brief_item (brief, item) VALUES ?', [pairs.map(({ brief, item }) => [brief, item.id])]);
    await sql.run('INSERT INTO brief_pin (brief, procedure_id, version, main) VALUES ?', [
      each.flatMap(({ brief }) => [
        [brief, pipeline.procedure_id, pipeline.version, 1],
        ...routines.map((pin) => [brief, pin.procedure_id, pin.version, 0]),
      ]),
    ]);
    out.push(...each.map((row) => row.brief));
  }
  return out;
}

/** The items of each brief: one, or as many as 'take' gathers. */
function gathered(items: readonly ItemRow[], document: ProcedureDocument): ItemRow[][] {
  const take = document.steps.find((step) => step.kind === 'take');
  const n = take?.gather ?? 1;
  const out: ItemRow[][] = [];
  for (let at = 0; at < items.length; at += n) out.push(items.slice(at, at + n));
  return out;
}

function subjectOf([first, ...rest]: readonly ItemRow[]): string {
  return rest.length === 0 ? first!.subject : `${first!.subject.slice(0, 460)} and ${rest.length} more`;
}

/** A brief of one item has its fields; one of several has the items, each with its own. */
function fieldsOf(items: readonly ItemRow[]): Record<string, unknown> {
  const [only] = items;
  if (items.length === 1) return only!.fields;
  return { items: items.map(({ subject, fields }) => ({ subject, ...fields })) };
}
