import { type ArticleDocument, ownWordsOf, runNumbers } from '@grivo/core';
import type { Sql } from '../../ground/store/database.ts';
import { readRevision } from './repository.ts';

/** Rows that are written in one statement. */
const ROWS = 2_000;

/** Keeps the numbers by which an article is found that says what this one says. */
export async function keepRuns(sql: Sql, article: string, document: ArticleDocument): Promise<void> {
  const numbers = runNumbers(ownWordsOf(document), document.language);
  await sql.run('DELETE FROM article_run WHERE article = ?', [article]);
  for (let at = 0; at < numbers.length; at += ROWS)
    await sql.run('INSERT INTO article_run (number, article) VALUES ?', [
      numbers.slice(at, at + ROWS).map((number) => [number, article]),
    ]);
}

/** An article of ours that says some of what another says. */
export interface OwnAlike {
  id: string;
  title: string;
  text: string;
}

/** Articles that are read whole, and numbers looked for: an article of 8,000 words has a thousand. */
const MOST_READ = 5;
const MOST_NUMBERS = 1_000;

/**
 * The articles of ours that an article has most in common with, of other briefs: those out and those on their way, and none
 * that was set aside.
 */
export async function ownAlike(
  sql: Sql,
  { id, brief }: { id: string; brief: string },
  document: ArticleDocument,
): Promise<OwnAlike[]> {
  const numbers = runNumbers(ownWordsOf(document), document.language).slice(0, MOST_NUMBERS);
  if (numbers.length === 0) return [];
  const rows = await sql.rows<{ id: string; title: string; current: string }>(
    `SELECT a.id, a.title, a.current FROM (SELECT article, COUNT(*) AS n FROM article_run WHERE number IN (?) AND article <> ? GROUP BY article ORDER BY n DESC LIMIT 40) r
     JOIN article a ON a.id = r.article WHERE a.brief <> ? AND a.trial = 0 AND a.aside = 0 AND a.standing <> 'withdrawn' AND a.current IS NOT NULL ORDER BY r.n DESC LIMIT ${MOST_READ}`,
    [numbers, id, brief],
  );
  return Promise.all(
    rows.map(async ({ id, title, current }) => ({ id, title, text: ownWordsOf(await readRevision(sql, current)) })),
  );
}
