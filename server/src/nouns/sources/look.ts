import type { ProcedureDocument, StepOf } from '@grivo/core';
import type { Procedures } from '../../engine/briefState.ts';
import type { Ground } from '../../ground/ground.ts';
import type { Sql } from '../../ground/store/database.ts';
import { subjectDigest } from '../../ground/store/subject.ts';
import type { Tools } from '../../ports/tools.ts';
import { pinsFor } from '../routines/repository.ts';
import { type Groups, groupsFor } from './groups.ts';
import { contentOf, cursorOf, gathered, type ItemRow, inputsOf, newUnits, type Unit } from './units.ts';

interface PipelineRow {
  id: string;
  procedure_id: string;
  version: number;
  priority: number;
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
  ports: TakePorts,
  procedures: Procedures,
  pipeline: string,
  words: TakeWords = NO_WORDS,
  from: ReadonlyMap<string, string> | null = null,
): Promise<Omit<Taken, 'more'>> {
  const { ground } = ports;
  const briefs: string[] = [];
  let found = 0;
  const groups = await groupsFor(ports, procedures, pipeline);
  for (let after = from; ; ) {
    const taken = await ground.db.transaction((sql) =>
      lookAndTake(sql, ground, procedures, pipeline, { words, after, groups }),
    );
    briefs.push(...taken.briefs);
    found += taken.found;
    if (taken.more === null) return { found, briefs };
    after = taken.more;
  }
}

/** How sources are looked at. */
export interface LookWords {
  words?: TakeWords;
  /** Where each source is gone on from; a source that is not named is looked at from its beginning. */
  after?: ReadonlyMap<string, string> | null;
  /** Groups of the lists that are grouped, made before (see `groupsFor`). */
  groups?: Groups;
  /** The one source to be looked at; all where none is named. */
  only?: string | null;
}

const NO_GROUPS: Groups = new Map();

export type TakePorts = Pick<Tools, 'ground' | 'reader'>;

/** One look at the sources of a pipeline: takes what is new, as many as its 'take' allows. */
export async function lookAndTake(
  sql: Sql,
  ground: Ground,
  procedures: Procedures,
  pipelineId: string,
  { words = NO_WORDS, after = null, groups = NO_GROUPS, only = null }: LookWords = {},
): Promise<Taken> {
  const pipeline = await lockPipeline(sql, pipelineId);
  if (!pipeline) return NOTHING;
  const { document } = await procedures.get(sql, pipeline.procedure_id, pipeline.version);
  const take = document.steps.find((step) => step.kind === 'take');
  if (!take || take.sources.length === 0) return NOTHING;
  const found: Unit[] = [];
  const more = new Map(after);
  let full = false;
  for (const source of take.sources) {
    if (only !== null && source !== only) continue;
    const room = (take.most ?? AT_ONCE) - found.length;
    const offered = await newUnits(sql, pipeline.id, source, room, after?.get(source) ?? '', groups.get(source));
    if (offered.length > 0) more.set(source, cursorOf(offered.at(-1)!));
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

/**
 * Chosen items into a pipeline, each by itself or those of a group together, whether or not it would have found them;
 * those it took before are left out.
 */
export async function takeChosen(
  sql: Sql,
  ground: Ground,
  procedures: Procedures,
  pipelineId: string,
  chosen: readonly (readonly string[])[],
  words: TakeWords = NO_WORDS,
): Promise<Omit<Taken, 'more'>> {
  const pipeline = await lockPipeline(sql, pipelineId);
  if (!pipeline || chosen.length === 0) return { found: 0, briefs: [] };
  const rows = new Map(
    (
      await sql.rows<ItemRow>('SELECT id, source, fingerprint, subject, fields FROM item WHERE id IN (?)', [
        [...new Set(chosen.flat())],
      ])
    ).map((row) => [row.id, row]),
  );
  // An item that stands in two groups goes with the first.
  const once = (id: string) => {
    const row = rows.get(id);
    rows.delete(id);
    return row ?? [];
  };
  const found = rows.size;
  const units = chosen.map((ids) => ids.flatMap(once)).filter((unit) => unit.length > 0);
  const { document } = await procedures.get(sql, pipeline.procedure_id, pipeline.version);
  return { found, briefs: await takeItems(sql, ground, { ...pipeline, document }, units, words) };
}

/** Pipelines that are on and take from a source. */
async function pipelinesOf(
  sql: Sql,
  procedures: Procedures,
  source: string,
): Promise<{ pipeline: string; gathers: boolean }[]> {
  const rows = await sql.rows<{ id: string; procedure_id: string; version: number }>(
    'SELECT id, procedure_id, version FROM pipeline WHERE is_on = 1 ORDER BY id',
  );
  const out: { pipeline: string; gathers: boolean }[] = [];
  for (const { id, procedure_id, version } of rows) {
    const { document } = await procedures.get(sql, procedure_id, version);
    const take = document.steps.find((step) => step.kind === 'take' && !step.off && step.sources.includes(source)) as
      | StepOf<'take'>
      | undefined;
    if (take) out.push({ pipeline: id, gathers: take.gather !== null });
  }
  return out;
}

/**
 * What was put into a source goes to its pipelines at once: nobody waits for the next look.
 * @param item what was just put in, where it is one thing: what was there before it is not walked over again, unless a
 *   pipeline gathers several
 */
export async function takeFor(
  ports: TakePorts,
  procedures: Procedures,
  source: string,
  item: string | null = null,
  /** Writes down what was taken, in the transaction that took it. */
  note: (sql: Sql, briefs: readonly string[]) => Promise<void> = async () => undefined,
): Promise<string[]> {
  const { ground } = ports;
  const briefs: string[] = [];
  for (const { pipeline, gathers } of await pipelinesOf(ground.db, procedures, source)) {
    const groups = item === null ? await groupsFor(ports, procedures, pipeline) : NO_GROUPS;
    // Ids grow: everything from the item on has an id above one letter less of its own.
    const after = item !== null && !gathers ? new Map([[source, item.slice(0, -1)]]) : null;
    const taken = await ground.db.transaction(async (sql) => {
      const some = await lookAndTake(sql, ground, procedures, pipeline, {
        groups,
        after,
        ...(after ? { only: source } : {}),
      });
      if (some.briefs.length > 0) await note(sql, some.briefs);
      return some;
    });
    briefs.push(...taken.briefs);
  }
  return briefs;
}

async function lockPipeline(sql: Sql, id: string): Promise<PipelineRow | null> {
  const [row] = await sql.rows<PipelineRow>(
    'SELECT id, procedure_id, version, priority FROM pipeline WHERE id = ? FOR UPDATE',
    [id],
  );
  return row ?? null;
}

const BATCH = 500;

async function takeItems(
  sql: Sql,
  ground: Ground,
  pipeline: PipelineRow & { document: ProcedureDocument },
  units: readonly Unit[],
  { inputs, byHand, range }: TakeWords,
): Promise<string[]> {
  const out: string[] = [];
  const given = inputsOf(pipeline.document, inputs);
  const routines = units.length === 0 ? [] : await pinsFor(sql, pipeline.document);
  const n = pipeline.document.steps.find((step) => step.kind === 'take')?.gather ?? 1;
  const prints = new Set<string>();
  for (const batch of inBatches(units)) {
    const had = await sql.rows<{ fingerprint: string }>(
      'SELECT fingerprint FROM taken WHERE pipeline = ? AND fingerprint IN (?)',
      [pipeline.id, batch.flat().map(({ fingerprint }) => fingerprint)],
    );
    for (const { fingerprint } of had) prints.add(fingerprint);
    const fresh = batch
      .map((unit) => unit.filter(({ fingerprint }) => !prints.has(fingerprint) && prints.add(fingerprint)))
      .filter((unit) => unit.length > 0);
    const each = gathered(fresh.map(contentOf), n).map((content) => ({ ...content, brief: ground.ids() }));
    if (each.length === 0) continue;
    const now = ground.desk.now();
    const pairs = each.flatMap(({ items, brief }) => items.map((item) => ({ item, brief })));
    await sql.run('INSERT INTO taken (pipeline, fingerprint, item, brief, source) VALUES ?', [
      pairs.map(({ item, brief }) => [pipeline.id, item.fingerprint, item.id, brief, item.source]),
    ]);
    await sql.run(
      'INSERT INTO brief (id, pipeline, standing, seed, subject, subject_sign, fields, priority, made_desk, by_hand) VALUES ?',
      [
        each.map(({ brief, subject, fields }) => [
          brief,
          pipeline.id,
          'waiting',
          brief,
          subject,
          subjectDigest(subject, pipeline.document.language),
          JSON.stringify({ ...fields, ...given, ...(range ? { range } : {}) }),
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

/** Units in batches of about so many items. */
function* inBatches(units: readonly Unit[]): Generator<Unit[]> {
  let batch: Unit[] = [];
  let items = 0;
  for (const unit of units) {
    batch.push(unit);
    items += unit.length;
    if (items < BATCH) continue;
    yield batch;
    batch = [];
    items = 0;
  }
  if (batch.length > 0) yield batch;
}
