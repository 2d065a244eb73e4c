import type { Today } from '@grivo/contract';
import type { Ground } from '../ground/ground.ts';
import { sharesOf } from '../money/shares.ts';
import type { Sql } from '../store/database.ts';
import { needsNow } from './needs.ts';

const DAY = 86_400_000;

/** What went out, what wants a person, and what articles cost. */
export async function todayNow(ground: Ground): Promise<Omit<Today, 'role'>> {
  const { db, desk } = ground;
  const now = desk.now();
  const since = now - (now % DAY) - DAY;
  const [wentOut, costs, needs, [begun]] = await Promise.all([
    outSince(ground, since),
    db.rows<{ article: string; brief: string; title: string; at: number }>(
      `SELECT a.id AS article, a.brief, a.title, p.out_desk AS at FROM publication p JOIN article a ON a.id = p.article WHERE p.state = 'live' AND p.out_desk >= ? ORDER BY p.out_desk LIMIT 500`,
      [now - 28 * DAY],
    ),
    needsNow(ground),
    db.rows<Record<'blogs' | 'writers' | 'illustrators' | 'sources' | 'pipelines' | 'out', number>>(
      `SELECT (SELECT COUNT(*) FROM blog WHERE tested_desk IS NOT NULL AND last_test NOT LIKE '%"well":false%') AS blogs, (SELECT COUNT(*) FROM service WHERE role = 'writer') AS writers, (SELECT COUNT(*) FROM service WHERE role = 'illustrator') AS illustrators,
         (SELECT COUNT(*) FROM source) AS sources, (SELECT COUNT(*) FROM pipeline) AS pipelines, (SELECT COUNT(*) FROM publication WHERE state = 'live') AS \`out\``,
    ),
  ]);
  const count = (name: 'blogs' | 'writers' | 'illustrators' | 'sources' | 'pipelines' | 'out') =>
    Number(begun?.[name] ?? 0);
  return {
    now,
    since,
    needs,
    wentOut,
    costs: await priced(db, costs),
    begun: {
      blogs: count('blogs'),
      writers: count('writers'),
      illustrators: count('illustrators'),
      sources: count('sources'),
      pipelines: count('pipelines'),
      out: count('out'),
    },
  };
}

async function outSince({ db }: Ground, since: number): Promise<Today['wentOut']> {
  const rows = await db.rows<Omit<Today['wentOut'][number], 'micros'> & { brief: string }>(
    `SELECT a.id AS article, a.title, b.id AS blog, b.name AS blogName, p.out_desk AS at, a.words, p.address, a.brief
     FROM publication p JOIN article a ON a.id = p.article JOIN blog b ON b.id = p.blog WHERE p.state = 'live' AND p.out_desk >= ? ORDER BY p.out_desk DESC LIMIT 50`,
    [since],
  );
  return priced(db, rows);
}

/** Rows of articles with what each of them cost; one that went out on two blogs is paid for once, and shown with it at both. */
async function priced<Row extends { article: string; brief: string; at: number }>(
  sql: Sql,
  rows: readonly Row[],
): Promise<(Omit<Row, 'brief'> & { micros: number })[]> {
  const shares = await sharesOf(
    sql,
    rows.map(({ article, brief }) => ({ id: article, brief })),
  );
  return rows.map(({ brief: _, ...row }) => ({ ...row, at: Number(row.at), micros: shares.get(row.article) ?? 0 }));
}
