import type { Today } from '@grivo/contract';
import type { Ground } from '../engine/outside.ts';
import { needsNow } from './needs.ts';

const DAY = 86_400_000;

/** What went out, what wants a person, and what articles cost. */
export async function todayNow(ground: Ground): Promise<Omit<Today, 'role'>> {
  const { db, desk } = ground;
  const now = desk.now();
  const since = now - (now % DAY) - DAY;
  const [wentOut, costs, needs, [begun]] = await Promise.all([
    outSince(ground, since),
    db.rows<{ article: string; title: string; at: number; micros: number }>(
      `SELECT a.id AS article, a.title, p.out_desk AS at, COALESCE((SELECT SUM(g.micros) FROM ledger g WHERE g.brief = a.brief), 0) AS micros
       FROM publication p JOIN article a ON a.id = p.article WHERE p.state = 'live' AND p.out_desk >= ? ORDER BY p.out_desk LIMIT 500`,
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
    costs: costs.map((row) => ({ ...row, at: Number(row.at), micros: Number(row.micros) })),
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
  const rows = await db.rows<Today['wentOut'][number]>(
    `SELECT a.id AS article, a.title, b.id AS blog, b.name AS blogName, p.out_desk AS at, a.words, p.address,
       COALESCE((SELECT SUM(g.micros) FROM ledger g WHERE g.brief = a.brief), 0) AS micros
     FROM publication p JOIN article a ON a.id = p.article JOIN blog b ON b.id = p.blog WHERE p.state = 'live' AND p.out_desk >= ? ORDER BY p.out_desk DESC LIMIT 50`,
    [since],
  );
  return rows.map((row) => ({ ...row, at: Number(row.at), micros: Number(row.micros) }));
}
