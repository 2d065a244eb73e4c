import type { AlsoHere } from '@grivo/contract';
import type { Database } from '../../ground/store/database.ts';

/** Who was not heard of for so long has gone, or sleeps. */
const GONE_AFTER_S = 25;

export interface Here {
  article: string;
  /** Names one page of a browser. */
  page: string;
  person: string;
  block: string | null;
  editing: boolean;
}

/**
 * Notes that somebody has an article open, and where they are in it.
 * @returns who else has, each person once: where they edit before where they only read; and whether the others have
 * something to hear of
 */
export async function beHere(
  db: Database,
  { article, page, person, block, editing }: Here,
): Promise<{ others: AlsoHere[]; isNews: boolean }> {
  const [before] = await db.rows<{ block: string | null; editing: number }>(
    'SELECT block, editing FROM presence WHERE article = ? AND page = ?',
    [article, page],
  );
  await db.run(
    `INSERT INTO presence (article, page, person, block, editing, seen_at) VALUES (?, ?, ?, ?, ?, UTC_TIMESTAMP(3))
     ON DUPLICATE KEY UPDATE person = VALUES(person), block = VALUES(block), editing = VALUES(editing), seen_at = VALUES(seen_at)`,
    [article, page, person, block, editing ? 1 : 0],
  );
  await db.run(
    `DELETE FROM presence WHERE article = ? AND seen_at < UTC_TIMESTAMP(3) - INTERVAL ${GONE_AFTER_S} SECOND`,
    [article],
  );
  const rows = await db.rows<{ person: string; name: string; block: string | null; editing: number }>(
    `SELECT h.person, p.name, h.block, h.editing FROM presence h JOIN person p ON p.id = h.person
     WHERE h.article = ? AND h.page <> ? ORDER BY h.editing DESC, h.seen_at DESC LIMIT 40`,
    [article, page],
  );
  const once = new Map<string, AlsoHere>();
  for (const row of rows)
    if (!once.has(row.person))
      once.set(row.person, {
        name: row.name,
        block: row.block,
        editing: Number(row.editing) === 1,
        me: row.person === person,
      });
  const isNews = !before || before.block !== block || (Number(before.editing) === 1) !== editing;
  return { others: [...once.values()], isNews };
}

/** @returns whether it was there */
export async function leave(db: Database, article: string, page: string): Promise<boolean> {
  return (await db.run('DELETE FROM presence WHERE article = ? AND page = ?', [article, page])) > 0;
}
