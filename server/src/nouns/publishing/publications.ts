import { createHash } from 'node:crypto';
import { type Act, blogMeant, type OutAs, type PublicationState } from '@grivo/core';
import type { Ground } from '../../ground/ground.ts';
import type { Sql } from '../../ground/store/database.ts';
import type { Placed } from '../../ports/blogs/blog.ts';
import { procedureOfBrief } from '../routines/versions.ts';

export interface PublicationRow {
  id: string;
  article: string;
  blog: string;
  key_: string;
  state: PublicationState;
  as_: OutAs;
  address: string | null;
  /** What the blog calls the post, where that is not its address. */
  handle: string | null;
  /** What is on the blog, or is on its way there for the first time. */
  revision: string | null;
  out_desk: number | null;
  /** What was begun last, and which edition of all that was done there it is, from 1. */
  act: Act;
  edition: number;
  /** The revision an update brings. */
  wanted: string | null;
  categories: string[] | null;
  /** Who it is by; null where nobody was named. */
  author: string | null;
  /** What else it carries; null for nothing. */
  carried: Carried | null;
  /** The moment a post on the blog is dated for, while the blog keeps it until then. */
  dated_desk: number | null;
  /** Digest of what the blog was seen to say, as we sent it or as somebody settled it; null before it was looked at. */
  seen: string | null;
  /** What somebody else made of it there, and nobody settled yet. */
  outside: Outside | null;
}

/** What a post carries besides its text, as it was asked for when it went out; an update carries it too. */
export interface Carried {
  shape: 'article' | 'page';
  replies: boolean | null;
  properties: Record<string, string>;
}

/** What was seen on a blog that we did not send: another text, or none. */
export interface Outside {
  kind: 'changed' | 'gone';
  digest: string;
  /** When it was seen (ISO 8601). */
  at: string;
}

const COLUMNS =
  'id, article, blog, key_, state, as_, address, handle, revision, out_desk, act, edition, wanted, categories, author, carried, dated_desk, seen, outside FROM publication';

/** The columns of a publication, for statements that read more of them. */
export const PUBLICATION_COLUMNS = COLUMNS;

/** Where its post is; null while there is none. */
export function placeOf({ address, handle }: Pick<PublicationRow, 'address' | 'handle'>): Placed | null {
  return address === null ? null : { handle: handle ?? address, address };
}

/** Whether a post has gone as far as it was asked to. */
export const isOut = ({ state, as_ }: Pick<PublicationRow, 'state' | 'as_'>): boolean =>
  state === 'live' || (state === 'draft' && (as_ === 'draft' || as_ === 'review'));

/** What a deed brought; those done by an earlier version of the program kept an address alone. */
export const asPlaced = (value: Placed | string): Placed =>
  typeof value === 'string' ? { handle: value, address: value } : value;

const ALPHABET = 'abcdefghijkmnpqrstuvwxyz23456789';

/** The publication's key: the same for the same article and blog, short enough to stand in an address. */
export function publicationKey(article: string, blog: string): string {
  const digest = createHash('sha256').update(`${article}/${blog}`).digest();
  return [...digest.subarray(0, 8)].map((byte) => ALPHABET[byte % ALPHABET.length]).join('');
}

/** What a post created by an edition has in its address: another one for each time it is created anew. */
export function markOf({ key_, edition }: Pick<PublicationRow, 'key_' | 'edition'>): string {
  return edition === 1 ? key_ : `${key_}e${edition}`;
}

/** The one publication of an article on a blog, the first edition of it begun. */
export async function ensurePublication(
  ground: Ground,
  article: string,
  blog: string,
  as: OutAs,
): Promise<PublicationRow> {
  await ground.db.run(
    `INSERT IGNORE INTO publication (id, article, blog, key_, state, as_, pipeline)
     SELECT ?, ?, ?, ?, 'planned', ?, (SELECT b.pipeline FROM article a JOIN brief b ON b.id = a.brief WHERE a.id = ?)`,
    [ground.ids(), article, blog, publicationKey(article, blog), as, article],
  );
  // What nobody has seen yet goes out as it is asked for now.
  await ground.db.run(
    "UPDATE publication SET as_ = ? WHERE article = ? AND blog = ? AND as_ <> ? AND state IN ('planned', 'creating')",
    [as, article, blog, as],
  );
  const [row] = await ground.db.rows<PublicationRow>(`SELECT ${COLUMNS} WHERE article = ? AND blog = ?`, [
    article,
    blog,
  ]);
  return row!;
}

export async function publicationBy(sql: Sql, key: string): Promise<PublicationRow | null> {
  const [row] = await sql.rows<PublicationRow>(`SELECT ${COLUMNS} WHERE key_ = ?`, [key]);
  return row ?? null;
}

export async function publicationOf(sql: Sql, id: string, lock = false): Promise<PublicationRow | null> {
  const [row] = await sql.rows<PublicationRow>(`SELECT ${COLUMNS} WHERE id = ?${lock ? ' FOR UPDATE' : ''}`, [id]);
  return row ?? null;
}

/** The article that went out last on a blog and is there; null where none is. */
export async function newestLive(sql: Sql, blog: string): Promise<string | null> {
  const [row] = await sql.rows<{ article: string }>(
    "SELECT article FROM publication FORCE INDEX (publication_of_blog) WHERE blog = ? AND state = 'live' ORDER BY out_desk DESC, id DESC LIMIT 1",
    [blog],
  );
  return row?.article ?? null;
}

/** The blog an article is for: the one it is on, has a slot of, or its procedure publishes on; null while it has none. */
export async function blogOfArticle(
  sql: Sql,
  { id, blog, brief }: { id: string; blog: string | null; brief: string },
): Promise<string | null> {
  if (blog !== null) return blog;
  const [placed] = await sql.rows<{ blog: string }>('SELECT blog FROM placement WHERE article = ? LIMIT 1', [id]);
  if (placed) return placed.blog;
  const pinned = await procedureOfBrief(sql, brief);
  return pinned ? blogMeant(pinned.steps, '') : null;
}
