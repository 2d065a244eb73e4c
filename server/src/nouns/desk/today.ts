import type { Today } from '@grivo/contract';
import type { Ground } from '../../ground/ground.ts';
import type { Sql } from '../../ground/store/database.ts';
import { sharesOf } from '../../ports/money/shares.ts';
import { ofLabel } from '../labels/repository.ts';
import { needsNow } from './needs.ts';

const DAY = 86_400_000;

/**
 * What went out, what wants a person, and what articles cost.
 * @param label only of pipelines, blogs and sources that carry it
 */
export async function todayNow(ground: Ground, label?: string): Promise<Omit<Today, 'role'>> {
  const { db, desk } = ground;
  const now = desk.now();
  const since = now - (now % DAY) - DAY;
  const [wentOut, costs, needs, [begun]] = await Promise.all([
    outSince(ground, since, label),
    db.rows<{ article: string; brief: string; title: string; at: number }>(
      `SELECT a.id AS article, a.brief, a.title, p.out_desk AS at FROM publication p JOIN article a ON a.id = p.article WHERE p.state = 'live' AND p.out_desk >= ?${labelled(label)} ORDER BY p.out_desk LIMIT 500`,
      [now - 28 * DAY, ...named(label)],
    ),
    needsNow(ground, label),
    db.rows<Record<'blogs' | 'writers' | 'illustrators' | 'sources' | 'pipelines' | 'out', number>>(
      `SELECT (SELECT COUNT(*) FROM blog WHERE tested_desk IS NOT NULL AND last_test NOT LIKE '%"well":false%') AS blogs, (SELECT COUNT(*) FROM service WHERE role = 'writer') AS writers, (SELECT COUNT(*) FROM service WHERE role = 'illustrator') AS illustrators,
         (SELECT COUNT(*) FROM source) AS sources, (SELECT COUNT(*) FROM pipeline) AS pipelines, EXISTS (SELECT 1 FROM publication WHERE state = 'live') AS \`out\``,
    ),
  ]);
  // What went out last is among what is priced anyway.
  const priced = await pricedRows(db, [...wentOut, ...costs]);
  const count = (name: 'blogs' | 'writers' | 'illustrators' | 'sources' | 'pipelines' | 'out') =>
    Number(begun?.[name] ?? 0);
  return {
    now,
    since,
    needs,
    wentOut: wentOut.map(priced),
    costs: costs.map(priced),
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

const labelled = (label: string | undefined) =>
  label === undefined ? '' : ` AND ${ofLabel({ pipeline: 'p.pipeline', blog: 'p.blog' })}`;
const named = (label: string | undefined) => (label === undefined ? [] : [label, label]);

type OutRow = Omit<Today['wentOut'][number], 'micros'> & { brief: string };

function outSince({ db }: Ground, since: number, label?: string): Promise<OutRow[]> {
  return db.rows<OutRow>(
    `SELECT a.id AS article, a.title, b.id AS blog, b.name AS blogName, p.out_desk AS at, a.words, p.address, a.brief
     FROM publication p JOIN article a ON a.id = p.article JOIN blog b ON b.id = p.blog WHERE p.state = 'live' AND p.out_desk >= ?${labelled(label)} ORDER BY p.out_desk DESC LIMIT 50`,
    [since, ...named(label)],
  );
}

/** Gives rows of articles what each of them cost; one that went out on two blogs is paid for once, and shown with it at both. */
async function pricedRows(
  sql: Sql,
  rows: readonly { article: string; brief: string }[],
): Promise<
  <Row extends { article: string; brief: string; at: number }>(row: Row) => Omit<Row, 'brief'> & { micros: number }
> {
  const shares = await sharesOf(
    sql,
    rows.map(({ article, brief }) => ({ id: article, brief })),
  );
  return ({ brief: _, ...row }) => ({ ...row, at: Number(row.at), micros: shares.get(row.article) ?? 0 });
}
