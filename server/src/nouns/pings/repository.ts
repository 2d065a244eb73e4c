import { randomBytes } from 'node:crypto';
import type { PingKind, Pings, PingsChange } from '@grivo/contract';
import { feedsAt } from '../../formats/feeds/find.ts';
import type { Secrets } from '../../ground/config/secrets.ts';
import { sha } from '../../ground/sha.ts';
import type { Sql } from '../../ground/store/database.ts';
import type { BlogTarget } from '../../ports/blogs/blog.ts';
import { showsText } from '../../ports/pings/pings.ts';
import type { Tools } from '../../ports/tools.ts';
import type { BlogRow } from '../blogs/entity.ts';
import { getBlog, targetOf } from '../blogs/repository.ts';

export interface PingsRow {
  blog: string;
  search: string;
  code: string;
  hub: string;
  feed: string;
  list_n: number;
  list_token: string | null;
}

const TIME_LIMIT_MS = 10_000;

/** Where a blog shows the text by which search engines know that it is ours to speak for; addresses below it are. */
export const codeAt = (address: string, code: string): string => `${address.replace(/\/$/, '')}/${code}.txt`;

/** The secret part of the addresses a list is read at, the same until it is switched off. */
export const listToken = (secrets: Secrets, blog: string, n: number): string =>
  secrets.derive(`list ${blog} ${n}`).subarray(0, 18).toString('base64url');

/** Whom the news of a blog are told to; made with a text of its own when it is asked for first. */
export async function pingsRow(sql: Sql, blog: string): Promise<PingsRow> {
  const read = () => sql.rows<PingsRow>('SELECT * FROM blog_pings WHERE blog = ?', [blog]);
  const [row] = await read();
  if (row) return row;
  await sql.run('INSERT IGNORE INTO blog_pings (blog, code) VALUES (?, ?)', [blog, randomBytes(16).toString('hex')]);
  return (await read())[0]!;
}

/**
 * Whom the news of a blog are told to, and what came of it. It is looked at the blog for its text, and for its feed where
 * that is still to be found.
 * @param home where this installation is reached
 */
export async function pingsOf(
  tools: Pick<Tools, 'ground' | 'network' | 'reader' | 'blogs' | 'secrets'>,
  blog: BlogRow,
  home: string,
): Promise<Pings> {
  const { db } = tools.ground;
  const { id } = blog;
  const row = await pingsRow(db, id);
  const at = codeAt(blog.address, row.code);
  if (row.hub !== '' && row.feed === '') {
    // It may have been down, or have had none, when the hub was named.
    row.feed = await feedOf(tools, targetOf(blog));
    await db.run("UPDATE blog_pings SET feed = ? WHERE blog = ? AND feed = ''", [row.feed, id]);
  }
  const standings = await db.rows<{
    kind: PingKind;
    waiting: number;
    told: number;
    refused: number;
    last: Date | null;
    said: string | null;
  }>(
    `SELECT kind, SUM(state = 'due') AS waiting, SUM(state = 'told') AS told, SUM(state = 'refused') AS refused, MAX(told_at) AS last,
       MAX(IF(state = 'told', NULL, NULLIF(said, ''))) AS said FROM ping WHERE blog = ? GROUP BY kind`,
    [id],
  );
  const token = row.list_token === null ? null : listToken(tools.secrets, id, row.list_n);
  const list = `${home}/listed/${token}`;
  return {
    search: row.search,
    code: row.code,
    codeAt: at,
    codeFound: row.search !== '' ? await showsText(tools.network, at, row.code) : null,
    hub: row.hub,
    feed: row.feed,
    standings: standings.map(({ kind, waiting, told, refused, last, said }) => ({
      kind,
      waiting: Number(waiting),
      told: Number(told),
      refused: Number(refused),
      lastAt: last?.toISOString() ?? null,
      said: said ?? '',
    })),
    list: token === null ? null : { json: `${list}.json`, html: `${list}.html` },
  };
}

/**
 * Says whom the news of a blog are told to. A folder gets the text search engines ask for; the feed a hub is told of is
 * the one the front page names.
 */
export async function changePings(
  tools: Pick<Tools, 'ground' | 'network' | 'reader' | 'blogs'>,
  blog: string,
  { search, hub }: { [Name in keyof PingsChange]: PingsChange[Name] | undefined },
): Promise<void> {
  const { db } = tools.ground;
  const { code } = await pingsRow(db, blog);
  const row = await getBlog(db, blog);
  if (!row) return;
  const target = targetOf(row);
  const feed = hub ? await feedOf(tools, target) : null;
  await db.run(
    'UPDATE blog_pings SET search = COALESCE(?, search), hub = COALESCE(?, hub), feed = COALESCE(?, feed) WHERE blog = ?',
    [search ?? null, hub ?? null, feed, blog],
  );
  if (search) await tools.blogs(target).show?.(target, { name: `${code}.txt`, text: code });
  // Who is not told any more is not waited for.
  if (search === '') await db.run("DELETE FROM ping WHERE blog = ? AND kind = 'search'", [blog]);
  if (hub === '') await db.run("DELETE FROM ping WHERE blog = ? AND kind = 'hub'", [blog]);
}

/** The feed of a blog: the one it keeps itself, or that of its front page; empty where none is found. */
async function feedOf(tools: Pick<Tools, 'network' | 'reader' | 'blogs'>, blog: BlogTarget): Promise<string> {
  const own = (await tools.blogs(blog).feed?.(blog)) ?? null;
  if (own !== null) return own;
  const found = await feedsAt(tools, blog.address, AbortSignal.timeout(TIME_LIMIT_MS));
  return found.ok ? (found.feeds[0]?.address ?? '').slice(0, 500) : '';
}

/** Tells again what was refused. */
export async function tellAgain(sql: Sql, blog: string): Promise<void> {
  await sql.run(
    "UPDATE ping SET state = 'due', tries = 0, due_at = UTC_TIMESTAMP(3), said = '' WHERE blog = ? AND state = 'refused'",
    [blog],
  );
}

/** Switches the addresses on or off at which a blog's list of articles is read; on again, they are others. */
export async function switchList(sql: Sql, secrets: Secrets, blog: string, on: boolean): Promise<void> {
  const { list_n: n, list_token: token } = await pingsRow(sql, blog);
  if (!on) return void (await sql.run('UPDATE blog_pings SET list_token = NULL WHERE blog = ?', [blog]));
  if (token !== null) return;
  await sql.run('UPDATE blog_pings SET list_n = ?, list_token = ? WHERE blog = ? AND list_token IS NULL', [
    n + 1,
    sha(listToken(secrets, blog, n + 1)),
    blog,
  ]);
}

export interface Listed {
  blog: { id: string; name: string; address: string; language: string };
  articles: { address: string; title: string; language: string; description: string; at: number }[];
}

const MOST_LISTED = 100;

/** The list of our articles live on a blog, the newest first, by its address; null when nothing is read there. */
export async function listedAt(sql: Sql, token: string): Promise<Listed | null> {
  const [blog] = await sql.rows<Listed['blog']>(
    'SELECT b.id, b.name, b.address, b.language FROM blog_pings s JOIN blog b ON b.id = s.blog WHERE s.list_token = ?',
    [sha(token)],
  );
  if (!blog) return null;
  const rows = await sql.rows<Omit<Listed['articles'][number], 'at'> & { at: number }>(
    `SELECT p.address, a.title, a.language, COALESCE(JSON_VALUE(r.document, '$.description'), '') AS description, p.out_desk AS at
     FROM publication p FORCE INDEX (publication_newest) JOIN article a ON a.id = p.article LEFT JOIN article_revision r ON r.id = p.revision
     WHERE p.blog = ? AND p.state = 'live' AND p.as_ = 'live' ORDER BY p.out_desk DESC, p.id DESC LIMIT ${MOST_LISTED}`,
    [blog.id],
  );
  return { blog, articles: rows.map((row) => ({ ...row, at: Number(row.at) })) };
}

/** Whether a list is read at an address. */
export async function isListed(sql: Sql, token: string): Promise<boolean> {
  return (await sql.rows('SELECT 1 FROM blog_pings WHERE list_token = ?', [sha(token)])).length > 0;
}
