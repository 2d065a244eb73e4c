import type { Ground } from '../../ground/ground.ts';
import type { Sql } from '../../ground/store/database.ts';
import { forgetGlances } from '../articles/glance.ts';
import { byHand, withdrawFrom } from '../publishing/acts.ts';
import type { PublishingPorts } from '../publishing/post.ts';

export interface MadeBy {
  briefs: number;
  articles: number;
  /** Posts on blogs, live and drafts. */
  posts: number;
  /** Briefs that have not ended; they are ended first. */
  open: number;
}

/** What a pipeline has made, to be said before any of it is deleted. */
export async function madeBy(sql: Sql, pipeline: string): Promise<MadeBy> {
  const [row] = await sql.rows<Record<keyof MadeBy, number>>(
    `SELECT COUNT(*) AS briefs, COALESCE(SUM(standing NOT IN ('out', 'set aside')), 0) AS open,
       (SELECT COUNT(*) FROM article a JOIN brief b ON b.id = a.brief WHERE b.pipeline = ?) AS articles,
       (SELECT COUNT(*) FROM publication p WHERE p.pipeline = ? AND p.state IN ('creating', 'draft', 'live')) AS posts
     FROM brief WHERE pipeline = ?`,
    [pipeline, pipeline, pipeline],
  );
  return {
    briefs: Number(row?.briefs ?? 0),
    open: Number(row?.open ?? 0),
    articles: Number(row?.articles ?? 0),
    posts: Number(row?.posts ?? 0),
  };
}

export interface Cleared {
  briefs: number;
  posts: number;
  /** Posts a blog would not give up, with what it said; their briefs are kept. */
  kept: { address: string; said: string }[];
}

interface PostRow {
  brief: string;
  publication: string;
  address: string | null;
}

const BATCH = 50;
const TIME_LIMIT_MS = 20_000;

/**
 * Deletes everything a pipeline made: its posts on the blogs first, then its articles, briefs and their steps. What it
 * cost stays in the ledger, and its items count as taken, so that they do not come again by themselves. A brief whose post
 * a blog will not give up is kept whole.
 */
export async function clearPipeline(ports: PublishingPorts, pipeline: string): Promise<Cleared> {
  const cleared: Cleared = { briefs: 0, posts: 0, kept: [] };
  let after = '';
  for (;;) {
    const briefs = await ports.ground.db.rows<{ id: string }>(
      "SELECT id FROM brief WHERE pipeline = ? AND id > ? AND standing IN ('out', 'set aside') ORDER BY id LIMIT ?",
      [pipeline, after, BATCH],
    );
    if (briefs.length === 0) return cleared;
    after = briefs.at(-1)!.id;
    const ids = briefs.map(({ id }) => id);
    await clearBriefs(ports, ids, cleared);
  }
}

/** Deletes ended briefs with all that was made of them, their posts first; see {@link clearPipeline}. */
export async function clearBriefs(
  ports: PublishingPorts,
  ids: readonly string[],
  cleared: Cleared = { briefs: 0, posts: 0, kept: [] },
): Promise<Cleared> {
  const held = new Set<string>();
  for (const post of await postsOf(ports.ground.db, ids)) {
    const said = await takeAway(ports, post);
    if (said === null) cleared.posts++;
    else {
      held.add(post.brief);
      cleared.kept.push({ address: post.address ?? '', said });
    }
  }
  const gone = ids.filter((id) => !held.has(id));
  if (gone.length > 0) await forget(ports.ground, gone);
  cleared.briefs += gone.length;
  return cleared;
}

async function postsOf(sql: Sql, briefs: readonly string[]): Promise<PostRow[]> {
  return sql.rows<PostRow>(
    "SELECT a.brief, p.id AS publication, p.address FROM publication p JOIN article a ON a.id = p.article WHERE a.brief IN (?) AND p.state IN ('creating', 'draft', 'live')",
    [briefs],
  );
}

/** @returns what the blog said against it, null when the post is gone */
async function takeAway(ports: PublishingPorts, post: PostRow): Promise<string | null> {
  const acted = await withdrawFrom(ports, byHand(ports.ground, AbortSignal.timeout(TIME_LIMIT_MS)), post.publication);
  switch (acted.kind) {
    case 'done':
    case 'nothing there':
      return null;
    case 'later':
      return 'nobody can say yet what the blog did with it; try again in a minute';
    case 'failed':
      return acted.failure.code.replace(/-/g, ' ');
  }
}

/** What there is of an article, and by which column. */
const OF_ARTICLES = [
  ['link_page', 'article'],
  ['link_use', 'article'],
  ['picture_use', 'article'],
  ['presence', 'article'],
  ['share', 'article'],
  ['comment', 'article'],
  ['labelled', 'of'],
  ['placement', 'article'],
  ['publication', 'article'],
  ['sketch_band', 'of'],
  ['sketch', 'of'],
  ['article_revision', 'article'],
] as const;

/** Takes briefs and all that was made of them out of the store; nothing of them may be on a blog any more. */
export async function forget(ground: Ground, briefs: readonly string[]): Promise<void> {
  await ground.db.transaction(async (sql) => {
    await forgetGlances(sql, briefs);
    for (const statement of [
      ...OF_ARTICLES.map(
        ([table, column]) => `DELETE x FROM ${table} x JOIN article a ON a.id = x.${column} WHERE a.brief IN (?)`,
      ),
      'DELETE FROM article WHERE brief IN (?)',
      ...['output', 'attempt'].map(
        (table) => `DELETE x FROM ${table} x JOIN step_run r ON r.id = x.step_run WHERE r.brief IN (?)`,
      ),
      'DELETE FROM step_run WHERE brief IN (?)',
      'DELETE FROM brief_item WHERE brief IN (?)',
      'DELETE FROM brief_pin WHERE brief IN (?)',
      'DELETE FROM brief WHERE id IN (?)',
    ])
      await sql.run(statement, [briefs]);
  });
}
