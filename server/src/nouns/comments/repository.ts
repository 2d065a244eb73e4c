import type { Comment } from '@grivo/contract';
import type { Ground } from '../../ground/ground.ts';
import type { Sql } from '../../ground/store/database.ts';
import { tellChange } from '../../ground/store/event.ts';

/** Comments that are read of one article; there are hardly ever so many. */
const MOST = 500;

/** What was said of an article, in the order it was said. */
export async function commentsOf(sql: Sql, article: string, person: string): Promise<Comment[]> {
  const rows = await sql.rows<Omit<Comment, 'mine' | 'done'> & { by: string; done: number }>(
    `SELECT c.id, c.block, c.words, c.done, c.created_at AS at, COALESCE(c.by_person, '') AS \`by\`, COALESCE(CONCAT(c.guest, ', a guest'), p.name, 'somebody who left') AS person
     FROM comment c LEFT JOIN person p ON p.id = c.by_person WHERE c.article = ? ORDER BY c.id LIMIT ?`,
    [article, MOST],
  );
  return rows.map(({ by, done, ...row }) => ({ ...row, done: done === 1, mine: by === '' || by === person }));
}

export interface NewComment {
  article: string;
  block: string;
  words: string;
  person: string;
}

export async function addComment(ground: Ground, { article, block, words, person }: NewComment): Promise<string> {
  const id = ground.ids();
  await ground.db.run('INSERT INTO comment (id, article, block, by_person, words) VALUES (?, ?, ?, ?, ?)', [
    id,
    article,
    block,
    person,
    words,
  ]);
  await tellChange(ground.db, ground, 'article', article);
  return id;
}

/** Says of a comment that it is done, or is not after all. @returns whether there is one */
export async function setDone(ground: Ground, article: string, id: string, done: boolean): Promise<boolean> {
  const n = await ground.db.run('UPDATE comment SET done = ? WHERE id = ? AND article = ?', [
    done ? 1 : 0,
    id,
    article,
  ]);
  if (n > 0) await tellChange(ground.db, ground, 'article', article);
  return n > 0;
}

/** Takes back what this person said, or what a guest did, who cannot. @returns whether there was such a comment */
export async function takeBack(ground: Ground, article: string, id: string, person: string): Promise<boolean> {
  const n = await ground.db.run(
    'DELETE FROM comment WHERE id = ? AND article = ? AND (by_person = ? OR guest IS NOT NULL)',
    [id, article, person],
  );
  if (n > 0) await tellChange(ground.db, ground, 'article', article);
  return n > 0;
}

/** What people without an account may say of one article, and in a minute. */
const MOST_BY_GUESTS = 200;
const MOST_A_MINUTE = 10;

export interface GuestWords {
  article: string;
  block: string;
  words: string;
  /** As they call themselves. */
  guest: string;
}

/** Keeps what somebody without an account says. @returns why it is not taken, where it is not */
export async function addGuestComment(
  ground: Ground,
  { article, block, words, guest }: GuestWords,
): Promise<'taken' | 'too many' | 'too fast'> {
  const [row] = await ground.db.rows<{ n: number; lately: number }>(
    `SELECT COUNT(*) AS n, COALESCE(SUM(created_at > UTC_TIMESTAMP(3) - INTERVAL 1 MINUTE), 0) AS lately
     FROM comment WHERE article = ? AND guest IS NOT NULL`,
    [article],
  );
  if (Number(row!.n) >= MOST_BY_GUESTS) return 'too many';
  if (Number(row!.lately) >= MOST_A_MINUTE) return 'too fast';
  await ground.db.run('INSERT INTO comment (id, article, block, guest, words) VALUES (?, ?, ?, ?, ?)', [
    ground.ids(),
    article,
    block,
    guest,
    words,
  ]);
  await tellChange(ground.db, ground, 'article', article);
  return 'taken';
}

/** What guests said of an article, in the order it was said: all that a guest is shown. */
export async function guestCommentsOf(
  sql: Sql,
  article: string,
): Promise<{ block: string; guest: string; words: string; done: boolean }[]> {
  const rows = await sql.rows<{ block: string; guest: string; words: string; done: number }>(
    'SELECT block, guest, words, done FROM comment WHERE article = ? AND guest IS NOT NULL ORDER BY id LIMIT ?',
    [article, MOST_BY_GUESTS],
  );
  return rows.map((row) => ({ ...row, done: row.done === 1 }));
}
