import type { Article, ArticlesQuery } from '@grivo/contract';
import type { Passage } from '@grivo/core';
import type { z } from 'zod';
import type { Sql } from '../../ground/store/database.ts';
import { sharesOf } from '../../ports/money/shares.ts';
import { ofLabel } from '../labels/repository.ts';
import { passagesById } from '../materials/repository.ts';

const LIST = `SELECT a.id, a.brief, COALESCE(a.blog, l.blog) AS blog, a.title, a.words, IF(a.standing = 'in work' AND b.standing IN ('held', 'stopped'), b.standing, a.standing) AS standing, a.language, p.address, p.out_desk AS outDesk, l.due_desk AS dueDesk, 0 AS micros
  FROM article a JOIN brief b ON b.id = a.brief
  LEFT JOIN publication p ON p.id = (SELECT q.id FROM publication q WHERE q.article = a.id ORDER BY q.state = 'live' DESC, q.address IS NULL, q.id LIMIT 1)
  LEFT JOIN placement l ON l.article = a.id AND l.blog = (SELECT m.blog FROM placement m WHERE m.article = a.id ORDER BY m.blog <=> a.blog DESC, m.due_desk LIMIT 1)`;

export type ArticlesWanted = Pick<z.infer<typeof ArticlesQuery>, 'standing' | 'blog' | 'label' | 'q'>;

/** What of all articles is wanted; one of a brief that is held or stopped is neither in work nor anything else. */
function whereOf({ standing, blog, label, q }: ArticlesWanted): { where: string[]; values: unknown[] } {
  const where = ['a.trial = 0'];
  const values: unknown[] = [];
  if (standing === 'held' || standing === 'stopped') {
    where.push("a.standing = 'in work' AND b.standing = ?");
    values.push(standing);
  } else if (standing) {
    where.push('a.standing = ?');
    values.push(standing);
    if (standing === 'in work') where.push("b.standing NOT IN ('held', 'stopped')");
  }
  if (blog) {
    where.push(
      '(a.blog = ? OR EXISTS (SELECT 1 FROM publication o WHERE o.article = a.id AND o.blog = ?) OR EXISTS (SELECT 1 FROM placement o WHERE o.article = a.id AND o.blog = ?))',
    );
    values.push(blog, blog, blog);
  }
  if (label) {
    where.push(ofLabel({ pipeline: 'b.pipeline', blog: 'a.blog' }));
    values.push(label, label);
  }
  if (q) {
    where.push('a.title LIKE ?');
    values.push(`%${q.replace(/[\\%_]/g, '\\$&')}%`);
  }
  return { where, values };
}

/** Articles with what each of them cost. */
async function priced(sql: Sql, rows: readonly Article[]): Promise<Article[]> {
  const shares = await sharesOf(sql, rows);
  return rows.map((row) => ({ ...row, micros: shares.get(row.id) ?? 0 }));
}

/** A page of articles, newest first. */
export async function articlesPage(
  sql: Sql,
  wanted: ArticlesWanted,
  before: string | undefined,
  limit: number,
): Promise<Article[]> {
  const { where, values } = whereOf(wanted);
  const rows = await sql.rows<Article>(
    `${LIST} WHERE ${[...where, 'a.id < ?'].join(' AND ')} ORDER BY a.id DESC LIMIT ?`,
    [...values, before ?? 'z', limit],
  );
  return priced(sql, rows);
}

/** The articles next to one in the list as it is filtered. */
export async function neighboursOf(
  sql: Sql,
  id: string,
  wanted: ArticlesWanted,
): Promise<{ newer: string | null; older: string | null }> {
  const { where, values } = whereOf(wanted);
  const beside = async (sign: '<' | '>', order: 'ASC' | 'DESC') => {
    const [row] = await sql.rows<{ id: string }>(
      `SELECT a.id FROM article a JOIN brief b ON b.id = a.brief WHERE ${where.join(' AND ')} AND a.id ${sign} ? ORDER BY a.id ${order} LIMIT 1`,
      [...values, id],
    );
    return row?.id ?? null;
  };
  const [newer, older] = await Promise.all([beside('>', 'ASC'), beside('<', 'DESC')]);
  return { newer, older };
}

/** An article as a list shows it. */
export async function articleLine(sql: Sql, id: string): Promise<Article | null> {
  const rows = await sql.rows<Article>(`${LIST} WHERE a.id = ?`, [id]);
  return (await priced(sql, rows))[0] ?? null;
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
