import {
  bringsOf,
  type Item,
  type ItemWhole,
  type Look,
  type Source,
  type SourceKind,
  SourceSettings,
  type SourceWhole,
} from '@grivo/contract';
import { answers, type Failure, type ItemField, wordsOf } from '@grivo/core';
import type { z } from 'zod';
import type { Ground } from '../../ground/ground.ts';
import { countEach } from '../../ground/store/counted.ts';
import type { Sql } from '../../ground/store/database.ts';
import { tellChange } from '../../ground/store/event.ts';
import { labelsOf } from '../labels/repository.ts';
import { measuresIn } from './keywords.ts';
import { filterAnew } from './leaveOut.ts';

/** A new source; what its settings leave open is as it is for most. */
export async function createSource(
  ground: Ground,
  given: z.input<typeof SourceSettings>,
  name: string,
): Promise<string> {
  const settings = SourceSettings.parse(given);
  const id = ground.ids();
  await ground.db.transaction(async (sql) => {
    await sql.run('INSERT INTO source (id, kind, name, settings) VALUES (?, ?, ?, ?)', [
      id,
      settings.kind,
      name,
      JSON.stringify(settings),
    ]);
    await tell(sql, ground, id);
  });
  return id;
}

async function tell(sql: Sql, ground: Ground, source: string): Promise<void> {
  await tellChange(sql, ground, 'source', source);
}

/** Kinds that hold what people and programs put into them. */
const HELD: ReadonlySet<SourceKind> = new Set(['keywords', 'hook', 'requests']);

/**
 * Changes a source as it was read at `rev`.
 * @returns the new rev, null when somebody else changed it meanwhile
 */
export async function changeSource(
  ground: Ground,
  id: string,
  rev: number,
  { name, settings }: { name?: string | undefined; settings?: SourceSettings | undefined },
): Promise<number | null> {
  return ground.db.transaction(async (sql) => {
    const done = await sql.run(
      'UPDATE source SET name = COALESCE(?, name), settings = COALESCE(?, settings), rev = rev + 1 WHERE id = ? AND rev = ?',
      [name ?? null, settings ? JSON.stringify(settings) : null, id, rev],
    );
    if (done === 0) return null;
    // Sources outside are filtered when they are looked at next; others hold only what was put into them.
    if (settings && HELD.has(settings.kind)) await filterAnew(sql, id, settings);
    await tell(sql, ground, id);
    return rev + 1;
  });
}

const LIST = `SELECT s.id, s.kind, s.name, s.note, s.archived, s.failure, s.looked_desk, s.rev, s.settings,
    (SELECT MAX(l.at_desk) FROM look l WHERE l.source = s.id) AS lastLook
  FROM source s`;

type ListRow = Omit<Source, 'trouble' | 'brings' | 'archived' | 'items' | 'taken' | 'leftOut' | 'labels'> & {
  archived: number;
  failure: Failure | null;
  rev: number;
  settings: unknown;
};

/** What a source's failures may speak of besides itself. */
async function serviceNames(sql: Sql): Promise<ReadonlyMap<string, string>> {
  const rows = await sql.rows<{ id: string; name: string }>('SELECT id, name FROM service');
  return new Map(rows.map(({ id, name }) => [id, name]));
}

function inWords(
  failure: Failure | null,
  source: { id: string; name: string },
  services: ReadonlyMap<string, string>,
): string | null {
  if (!failure) return null;
  const { sentence, mend } = wordsOf(failure, (id) => (id === source.id ? source.name : (services.get(id) ?? id)));
  return `${sentence} ${mend}`;
}

/** What sources hold, by source and what is counted. */
const countsOf = (sql: Sql, ids: readonly string[]) =>
  countEach(
    sql,
    ids.flatMap((id) => [
      { key: `${id} items`, from: 'item WHERE source = ?', parameters: [id] },
      // One that was taken by several pipelines is one.
      { key: `${id} taken`, from: 'taken WHERE source = ? GROUP BY item', parameters: [id] },
      { key: `${id} left out`, from: 'item WHERE source = ? AND left_out IS NOT NULL', parameters: [id] },
    ]),
  );

function listed(
  row: ListRow,
  services: ReadonlyMap<string, string>,
  counts: Awaited<ReturnType<typeof countsOf>>,
  labels: (id: string) => string[],
): Source {
  const n = (what: string) => counts.get(`${row.id} ${what}`) ?? 0;
  return {
    id: row.id,
    kind: row.kind,
    name: row.name,
    note: row.note,
    archived: row.archived === 1,
    labels: labels(row.id),
    items: n('items'),
    taken: n('taken'),
    leftOut: n('left out'),
    lastLook: row.lastLook === null ? null : Number(row.lastLook),
    trouble: inWords(row.failure, row, services),
    brings: bringsOf(SourceSettings.parse(row.settings)),
  };
}

export async function listSources(sql: Sql): Promise<Source[]> {
  const [rows, services, labels] = await Promise.all([
    sql.rows<ListRow>(`${LIST} ORDER BY s.id`),
    serviceNames(sql),
    labelsOf(sql, 'source'),
  ]);
  const counts = await countsOf(
    sql,
    rows.map(({ id }) => id),
  );
  return rows.map((row) => listed(row, services, counts, labels));
}

/** What sources are called and how they are set, without what they hold. */
export async function sourceNames(sql: Sql): Promise<{ id: string; name: string; settings: unknown }[]> {
  return sql.rows('SELECT id, name, settings FROM source ORDER BY id');
}

/** What items of named sources bring along, told when it is asked. */
export function bringing(sources: readonly { id: string; settings: unknown }[]) {
  return (id: string): ItemField[] | null => {
    const found = sources.find((source) => source.id === id);
    return found ? bringsOf(SourceSettings.parse(found.settings)) : null;
  };
}

export async function sourceWhole(sql: Sql, id: string): Promise<SourceWhole | null> {
  const [row] = await sql.rows<ListRow>(`${LIST} WHERE s.id = ?`, [id]);
  if (!row) return null;
  return {
    ...listed(row, await serviceNames(sql), await countsOf(sql, [id]), await labelsOf(sql, 'source')),
    rev: row.rev,
    settings: SourceSettings.parse(row.settings),
  };
}

export async function phrasesOf(sql: Sql, source: string): Promise<string[]> {
  return (await sql.rows<{ subject: string }>('SELECT subject FROM item WHERE source = ?', [source])).map(
    (row) => row.subject,
  );
}

const MOST_ITEMS = 20_000;

interface ItemRow {
  id: string;
  source: string;
  subject: string;
  left_out: Item['leftOut'];
  left_detail: string;
  gone: number;
  published_desk: number | null;
  fields: Record<string, unknown>;
  results: string[] | null;
}

function itemOf(
  row: ItemRow,
  taken: Item['taken'],
  answeredBy: Item['answeredBy'] = null,
  results: number[] = [],
): Item {
  return {
    id: row.id,
    subject: row.subject,
    leftOut: row.left_out,
    leftDetail: row.left_detail,
    gone: row.gone === 1,
    publishedDesk: row.published_desk === null ? null : Number(row.published_desk),
    about: typeof row.fields['about'] === 'string' ? row.fields['about'] : '',
    answeredBy,
    ...measuresIn(row.fields),
    results,
    taken,
  };
}

const TAKEN = 'SELECT t.item, t.pipeline, t.brief, b.standing FROM taken t JOIN brief b ON b.id = t.brief';
type TakenRow = { item: string } & Item['taken'][number];

/** Articles phrases are held against. */
const MOST_ARTICLES = 20_000;

/** The items of a source in their order, each with the briefs that pipelines made of it, and phrases with the article we have. */
export async function itemsOf(
  sql: Sql,
  source: string,
  kind: SourceKind,
): Promise<{ items: Item[]; addresses: string[]; more: number }> {
  const [articles, items, [all]] = await Promise.all([
    kind === 'keywords'
      ? sql.rows<{ id: string; title: string; subject: string }>(
          "SELECT a.id, a.title, b.subject FROM article a JOIN brief b ON b.id = a.brief WHERE a.trial = 0 AND a.title <> '' AND a.standing <> 'set aside' ORDER BY a.id DESC LIMIT ?",
          [MOST_ARTICLES],
        )
      : [],
    sql.rows<ItemRow>(
      `SELECT id, source, subject, left_out, left_detail, gone, published_desk, ${kind === 'keywords' ? 'fields, results' : `JSON_OBJECT('about', JSON_VALUE(fields, '$.about')) AS fields, NULL AS results`} FROM item FORCE INDEX (item_order) WHERE source = ? ORDER BY id LIMIT ?`,
      [source, MOST_ITEMS],
    ),
    sql.rows<{ n: number }>('SELECT COUNT(*) AS n FROM item WHERE source = ?', [source]),
  ]);
  const taken: TakenRow[] = [];
  // By a longer list the database would not look them up one by one.
  for (let at = 0; at < items.length; at += 1_000)
    taken.push(
      ...(await sql.rows<TakenRow>(`${TAKEN} WHERE t.item IN (?)`, [items.slice(at, at + 1_000).map(({ id }) => id)])),
    );
  const byItem = new Map<string, Item['taken']>();
  for (const { item, ...rest } of taken) byItem.set(item, [...(byItem.get(item) ?? []), rest]);
  const answered = answers(articles);
  const addresses = new Map<string, number>();
  const placeOf = (address: string) => {
    const at = addresses.get(address) ?? addresses.size;
    addresses.set(address, at);
    return at;
  };
  const shown = items.map((item) => {
    const own = byItem.get(item.id) ?? [];
    const at = own.length === 0 && articles.length > 0 ? answered(item.subject) : null;
    const answeredBy = at === null ? null : { id: articles[at]!.id, title: articles[at]!.title };
    return itemOf(item, own, answeredBy, (item.results ?? []).map(placeOf));
  });
  // A list that goes on beyond what is shown says by how many.
  return { items: shown, addresses: [...addresses.keys()], more: Math.max(0, Number(all?.n ?? 0) - shown.length) };
}

/** One item with everything it brings along; null when there is none. */
export async function itemWhole(sql: Sql, id: string): Promise<ItemWhole | null> {
  const [row] = await sql.rows<ItemRow>(
    'SELECT id, source, subject, left_out, left_detail, gone, published_desk, fields, results FROM item WHERE id = ?',
    [id],
  );
  if (!row) return null;
  const taken = await sql.rows<TakenRow>(`${TAKEN} WHERE t.item = ?`, [id]);
  return {
    ...itemOf(
      row,
      taken.map(({ item: _, ...rest }) => rest),
    ),
    source: row.source,
    fields: row.fields,
  };
}

/** Leaves items out, or offers them in spite of what a look found; a person's word stays over later looks. */
export async function offerItems(
  ground: Ground,
  source: string,
  items: readonly string[],
  offer: boolean,
): Promise<number> {
  return ground.db.transaction(async (sql) => {
    const done = await sql.run(
      `UPDATE item SET left_out = ${offer ? 'NULL' : "'by hand'"}, left_detail = '', by_hand = 1 WHERE source = ? AND id IN (?)${offer ? " AND left_out <> 'unusable'" : ''}`,
      [source, items],
    );
    await tell(sql, ground, source);
    return done;
  });
}

/** Visits to a source, newest first. */
export async function looksOf(sql: Sql, source: string, before: string, limit: number): Promise<Look[]> {
  const rows = await sql.rows<
    Omit<Look, 'trouble' | 'leftOut'> & { left_out: number; failure: Failure | null; name: string }
  >(
    `SELECT l.id, l.at_desk AS atDesk, l.found, l.fresh, l.changed, l.left_out, l.taken, l.failure, p.name AS pipeline, s.name
     FROM look l JOIN source s ON s.id = l.source LEFT JOIN pipeline p ON p.id = l.pipeline WHERE l.source = ? AND l.id < ? ORDER BY l.id DESC LIMIT ?`,
    [source, before, limit],
  );
  const services = await serviceNames(sql);
  return rows.map(({ left_out, failure, name, ...row }) => ({
    ...row,
    atDesk: Number(row.atDesk),
    leftOut: left_out,
    trouble: inWords(failure, { id: source, name }, services),
  }));
}
