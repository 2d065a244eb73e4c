import type { Item, Source } from '@grivo/contract';
import type { Ground } from '../engine/outside.ts';
import type { Sql } from '../store/database.ts';
import type { SourceRow } from './entity.ts';

export async function createSource(ground: Ground, kind: SourceRow['kind'], name: string): Promise<string> {
  const id = ground.ids();
  await ground.db.transaction(async (sql) => {
    await sql.run('INSERT INTO source (id, kind, name) VALUES (?, ?, ?)', [id, kind, name]);
    await sql.run("INSERT INTO event (id, noun, noun_id) VALUES (?, 'source', ?)", [ground.ids(), id]);
  });
  return id;
}

export async function listSources(sql: Sql): Promise<Source[]> {
  const rows = await sql.rows<Source>(
    `SELECT s.id, s.kind, s.name, (SELECT COUNT(*) FROM item i WHERE i.source = s.id) AS items,
       (SELECT COUNT(DISTINCT t.item) FROM taken t JOIN item i ON i.id = t.item WHERE i.source = s.id) AS taken,
       (SELECT MAX(l.at_desk) FROM look l WHERE l.source = s.id) AS lastLook
     FROM source s ORDER BY s.id`,
  );
  return rows.map((row) => ({
    ...row,
    items: Number(row.items),
    taken: Number(row.taken),
    lastLook: row.lastLook === null ? null : Number(row.lastLook),
  }));
}

export async function phrasesOf(sql: Sql, source: string): Promise<string[]> {
  return (await sql.rows<{ subject: string }>('SELECT subject FROM item WHERE source = ?', [source])).map(
    (row) => row.subject,
  );
}

const MOST_ITEMS = 20_000;

/** The items of a source in their order, each with the briefs that pipelines made of it. */
export async function itemsOf(sql: Sql, source: string): Promise<Item[]> {
  const [items, taken] = await Promise.all([
    sql.rows<{ id: string; subject: string }>('SELECT id, subject FROM item WHERE source = ? ORDER BY id LIMIT ?', [
      source,
      MOST_ITEMS,
    ]),
    sql.rows<{ item: string; pipeline: string; brief: string; standing: string }>(
      'SELECT t.item, t.pipeline, t.brief, b.standing FROM taken t JOIN item i ON i.id = t.item JOIN brief b ON b.id = t.brief WHERE i.source = ?',
      [source],
    ),
  ]);
  const byItem = new Map<string, Item['taken']>();
  for (const { item, ...rest } of taken) byItem.set(item, [...(byItem.get(item) ?? []), rest]);
  return items.map((item) => ({ ...item, taken: byItem.get(item.id) ?? [] }));
}
