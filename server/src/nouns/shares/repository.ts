import type { ArticleDocument } from '@grivo/core';
import type { Secrets } from '../../ground/config/secrets.ts';
import type { Ground } from '../../ground/ground.ts';
import { sha } from '../../ground/sha.ts';
import type { Sql } from '../../ground/store/database.ts';
import { readRevision } from '../articles/repository.ts';

/** The secret part of an article's address, the same for every asking until it is shared anew. */
const tokenOf = (secrets: Secrets, article: string, n: number): string =>
  secrets.derive(`share ${article} ${n}`).subarray(0, 24).toString('base64url');

export interface Shared {
  token: string;
  endsDesk: number | null;
  seen: number;
  /** Whether whoever has the address may say something of it. */
  comments: boolean;
}

/** How an article is shared now; null when it is not, or not any more. */
export async function shareOf(ground: Ground, secrets: Secrets, article: string): Promise<Shared | null> {
  const [row] = await ground.db.rows<{ n: number; ends_desk: number | null; seen: number; comments: number }>(
    'SELECT n, ends_desk, seen, comments FROM share WHERE article = ? AND (ends_desk IS NULL OR ends_desk > ?)',
    [article, ground.desk.now()],
  );
  if (!row) return null;
  return {
    token: tokenOf(secrets, article, row.n),
    endsDesk: row.ends_desk === null ? null : Number(row.ends_desk),
    seen: row.seen,
    comments: row.comments === 1,
  };
}

/** Shares an article at an address of its own; one it had before leads nowhere any more. */
export async function shareArticle(
  ground: Ground,
  secrets: Secrets,
  article: string,
  { person, endsDesk, comments }: { person: string; endsDesk: number | null; comments: boolean },
): Promise<void> {
  await ground.db.transaction(async (sql) => {
    const [row] = await sql.rows<{ n: number }>('SELECT n FROM share WHERE article = ? FOR UPDATE', [article]);
    const n = (row?.n ?? 0) + 1;
    await sql.run('DELETE FROM share WHERE article = ?', [article]);
    await sql.run(
      'INSERT INTO share (id, article, token, n, by_person, ends_desk, comments) VALUES (?, ?, ?, ?, ?, ?, ?)',
      [ground.ids(), article, sha(tokenOf(secrets, article, n)), n, person, endsDesk, comments ? 1 : 0],
    );
  });
}

/**
 * Takes an article's address back: it leads nowhere any more, and one made later is another. The row stays with a moment
 * that has passed, so that its number is not given out again.
 */
export async function unshareArticle(sql: Sql, article: string): Promise<void> {
  await sql.run('UPDATE share SET ends_desk = 0 WHERE article = ?', [article]);
}

/** The article that is shared at an address now. */
export async function sharedAt(
  ground: Ground,
  token: string,
): Promise<{ article: string; document: ArticleDocument; comments: boolean } | null> {
  const [row] = await ground.db.rows<{ article: string; current: string; comments: number }>(
    `SELECT s.article, s.comments, a.current FROM share s JOIN article a ON a.id = s.article
     WHERE s.token = ? AND a.current IS NOT NULL AND (s.ends_desk IS NULL OR s.ends_desk > ?)`,
    [sha(token), ground.desk.now()],
  );
  return row
    ? { article: row.article, document: await readRevision(ground.db, row.current), comments: row.comments === 1 }
    : null;
}

/** Counts a reading; who read it is not kept. */
export async function countSeen(sql: Sql, article: string): Promise<void> {
  await sql.run('UPDATE share SET seen = seen + 1 WHERE article = ?', [article]);
}
