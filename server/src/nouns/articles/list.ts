import type { Article, ArticlesCounted, ArticlesQuery, ArticlesWanted } from '@grivo/contract';
import type { Passage } from '@grivo/core';
import type { z } from 'zod';
import { countEach } from '../../ground/store/counted.ts';
import type { Sql } from '../../ground/store/database.ts';
import { sharesOf } from '../../ports/money/shares.ts';
import { passagesById } from '../materials/repository.ts';
import { placesOf } from './order.ts';
import { chosenSaying, SHOWN_PLACEMENT, SHOWN_PUBLICATION } from './wanted.ts';

const LIST = `SELECT a.id, a.brief, COALESCE(a.blog, l.blog) AS blog, a.title, a.words, IF(a.standing = 'in work' AND b.standing IN ('held', 'stopped'), b.standing, a.standing) AS standing, a.language, p.address, p.out_desk AS outDesk, l.due_desk AS dueDesk, 0 AS micros, g.out_of_range AS outOfRange
  FROM article a JOIN brief b ON b.id = a.brief
  LEFT JOIN publication p ON p.id = ${SHOWN_PUBLICATION}
  LEFT JOIN placement l ON ${SHOWN_PLACEMENT}
  LEFT JOIN article_glance g ON g.article = a.id`;

/** Articles as a list shows them, in the order of their ids as given, with what each of them cost. */
async function linesOf(sql: Sql, ids: readonly string[]): Promise<Article[]> {
  if (ids.length === 0) return [];
  const briefs = await sql.rows<{ id: string; brief: string }>('SELECT id, brief FROM article WHERE id IN (?)', [ids]);
  const [rows, shares] = await Promise.all([
    sql.rows<Article>(`${LIST} WHERE a.id IN (?)`, [ids]),
    sharesOf(sql, briefs),
  ]);
  const by = new Map(rows.map((row) => [row.id, { ...row, micros: shares.get(row.id) ?? 0 }]));
  return ids.flatMap((id) => by.get(id) ?? []);
}

/**
 * A page of articles.
 * @param now desk clock, for the ones of so many days
 */
export async function articlesPage(
  sql: Sql,
  wanted: z.infer<typeof ArticlesQuery>,
  now: number,
): Promise<{ articles: Article[]; next: string | null }> {
  const { ids, next } = await placesOf(sql, wanted, now);
  return { articles: await linesOf(sql, ids), next };
}

const DAY = 86_400_000;

/** How many a list has, how many there are at all, and how many wait for a person; what was set aside only where it is asked for. */
export async function countArticles(
  sql: Sql,
  wanted: ArticlesWanted,
  now: number,
): Promise<z.infer<typeof ArticlesCounted>> {
  const counted = async (key: string, which: ArticlesWanted) => {
    const of = await chosenSaying(sql, which, which.days === undefined ? null : now - which.days * DAY);
    const aside = which.standing ? '' : " AND a.standing <> 'set aside'";
    return {
      key,
      from: `article a${of.joins} WHERE ${of.where.join(' AND ')}${aside}`,
      parameters: of.values,
    };
  };
  const label = wanted.label ? { label: wanted.label } : {};
  const by = await countEach(sql, [
    await counted('shown', wanted),
    await counted('all', label),
    await counted('held', { ...label, standing: 'held' }),
  ]);
  return { shown: by.get('shown') ?? 0, all: by.get('all') ?? 0, held: by.get('held') ?? 0 };
}

/** The articles next to one in the list as it is filtered, by when they were made. */
export async function neighboursOf(
  sql: Sql,
  id: string,
  wanted: ArticlesWanted,
): Promise<{ newer: string | null; older: string | null }> {
  const { joins, where, values } = await chosenSaying(sql, wanted);
  const beside = async (sign: '<' | '>', order: 'ASC' | 'DESC') => {
    const [row] = await sql.rows<{ id: string }>(
      `SELECT a.id FROM article a${joins} WHERE ${where.join(' AND ')} AND a.id ${sign} ? ORDER BY a.id ${order} LIMIT 1`,
      [...values, id],
    );
    return row?.id ?? null;
  };
  const [newer, older] = await Promise.all([beside('>', 'ASC'), beside('<', 'DESC')]);
  return { newer, older };
}

/** An article as a list shows it. */
export async function articleLine(sql: Sql, id: string): Promise<Article | null> {
  return (await linesOf(sql, [id]))[0] ?? null;
}

/** Every passage a brief was given, for finding figures that stand in none. */
export async function passagesGiven(sql: Sql, brief: string): Promise<Passage[]> {
  const rows = await sql.rows<{ gave: { passages?: unknown } }>(
    "SELECT COALESCE(o.decided, o.proposed) AS gave FROM output o JOIN step_run r ON r.id = o.step_run WHERE r.brief = ? AND r.state = 'done'",
    [brief],
  );
  const ids = rows.flatMap(({ gave }) =>
    Array.isArray(gave.passages) ? gave.passages.filter((id): id is string => typeof id === 'string') : [],
  );
  return passagesById(sql, [...new Set(ids)]);
}
