import type { Clicks } from '@grivo/contract';
import { sha } from '../../ground/sha.ts';
import type { Database, Sql } from '../../ground/store/database.ts';

/** A click on a link of an article on a blog. */
export interface Click {
  /** The publication it was made on. */
  by: string;
  address: string;
  /** The day of the blog, as `2026-05-31`. */
  day: string;
}

/** Lines that are shown of each kind, and days that are looked back on. */
const SHOWN = 12;
export const DAYS = 30;

/**
 * Adds clicks, many at once. Only links of blogs that count are; nothing is kept of who clicked.
 * @param clicks how often each
 */
export async function addClicks(sql: Sql, clicks: readonly (Click & { times: number })[]): Promise<void> {
  for (const { by, address, day, times } of clicks)
    await sql.run(
      `INSERT INTO click (publication, day, link, address, times)
       SELECT p.id, ?, ?, ?, ? FROM publication p JOIN blog b ON b.id = p.blog WHERE p.id = ? AND JSON_VALUE(b.settings, '$.counts') = 1
       ON DUPLICATE KEY UPDATE times = times + VALUES(times)`,
      [day, sha(address), address, times, by],
    );
}

/** The zone days of a publication are told in: that of its blog. Null where there is no such publication. */
export async function zoneOfPublication(sql: Sql, id: string): Promise<string | null> {
  const [row] = await sql.rows<{ zone: string }>(
    "SELECT JSON_VALUE(b.cadence, '$.zone') AS zone FROM publication p JOIN blog b ON b.id = p.blog WHERE p.id = ?",
    [id],
  );
  return row?.zone ?? null;
}

/** Clicks on a blog, or on one article of it, since a day: by day, by link, by article. */
export async function clicksOfBlog(
  db: Database,
  { blog, article, since }: { blog: string; article: string | null; since: string },
): Promise<Pick<Clicks, 'days' | 'links' | 'articles'>> {
  const from = 'FROM publication p JOIN click c ON c.publication = p.id';
  const where = `WHERE p.blog = ? AND c.day >= ?${article === null ? '' : ' AND p.article = ?'}`;
  const asked = [blog, since, ...(article === null ? [] : [article])];
  const [days, links, articles] = await Promise.all([
    db.rows<{ day: string; times: number }>(
      `SELECT DATE_FORMAT(c.day, '%Y-%m-%d') AS day, SUM(c.times) AS times ${from} ${where} GROUP BY c.day ORDER BY c.day`,
      asked,
    ),
    db.rows<{ address: string; times: number; articles: number }>(
      `SELECT MAX(c.address) AS address, SUM(c.times) AS times, COUNT(DISTINCT p.article) AS articles ${from} ${where} GROUP BY c.link ORDER BY times DESC, address LIMIT ${SHOWN}`,
      asked,
    ),
    db.rows<{ id: string; title: string; times: number }>(
      `SELECT a.id, MAX(a.title) AS title, SUM(c.times) AS times ${from} JOIN article a ON a.id = p.article ${where} GROUP BY a.id ORDER BY times DESC, a.id LIMIT ${SHOWN}`,
      asked,
    ),
  ]);
  const number = <T extends { times: number }>(row: T): T => ({ ...row, times: Number(row.times) });
  return {
    days: days.map(number),
    links: links.map((row) => ({ ...number(row), articles: Number(row.articles) })),
    articles: articles.map(number),
  };
}
