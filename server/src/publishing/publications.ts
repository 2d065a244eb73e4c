import { createHash } from 'node:crypto';
import type { PublicationState } from '@grivo/core';
import type { Ground } from '../ground/ground.ts';
import type { Sql } from '../store/database.ts';
import type { Write } from '../store/write.ts';

export interface PublicationRow {
  id: string;
  article: string;
  blog: string;
  key_: string;
  state: PublicationState;
  as_: 'live' | 'draft';
  address: string | null;
  revision: string | null;
  out_desk: number | null;
}

const ALPHABET = 'abcdefghijkmnpqrstuvwxyz23456789';

/** The publication's key: the same for the same article and blog, short enough to stand in an address. */
export function publicationKey(article: string, blog: string): string {
  const digest = createHash('sha256').update(`${article}/${blog}`).digest();
  return [...digest.subarray(0, 8)].map((byte) => ALPHABET[byte % ALPHABET.length]).join('');
}

/** The one publication of an article on a blog. */
export async function ensurePublication(
  ground: Ground,
  article: string,
  blog: string,
  as: 'live' | 'draft',
): Promise<PublicationRow> {
  await ground.db.run(
    "INSERT IGNORE INTO publication (id, article, blog, key_, state, as_) VALUES (?, ?, ?, ?, 'planned', ?)",
    [ground.ids(), article, blog, publicationKey(article, blog), as],
  );
  const [row] = await ground.db.rows<PublicationRow>(
    'SELECT id, article, blog, key_, state, as_, address, revision, out_desk FROM publication WHERE article = ? AND blog = ?',
    [article, blog],
  );
  return row!;
}

export async function publicationBy(sql: Sql, key: string): Promise<PublicationRow | null> {
  const [row] = await sql.rows<PublicationRow>(
    'SELECT id, article, blog, key_, state, as_, address, revision, out_desk FROM publication WHERE key_ = ?',
    [key],
  );
  return row ?? null;
}

/**
 * Pins the revision that goes out. As long as nothing of it can have reached the blog a newer one takes its place, as after
 * a refusal and another writing; from then on what is written is not published by this.
 */
export async function pinRevision(sql: Sql, publication: PublicationRow, revision: string): Promise<string> {
  await sql.run(
    `UPDATE publication SET revision = ?, state = 'creating', rev = rev + 1 WHERE id = ? AND state IN ('planned', 'creating')
     AND (revision IS NULL OR revision <> ?) AND NOT EXISTS (SELECT 1 FROM intent WHERE intent.key_ = CONCAT('create/', publication.key_))`,
    [revision, publication.id, revision],
  );
  const [row] = await sql.rows<{ revision: string }>('SELECT revision FROM publication WHERE id = ?', [publication.id]);
  return row!.revision;
}

/** A draft is there, at an address; one that went further meanwhile stays what it is. */
export function draftWrite(id: string, address: string): Write {
  return {
    text: "UPDATE publication SET state = 'draft', address = ?, rev = rev + 1 WHERE id = ? AND state IN ('planned', 'creating')",
    parameters: [address, id],
  };
}
