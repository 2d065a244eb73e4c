import { type ArticleDocument, leadingTo, linkedArticles } from '@grivo/core';
import type { Sql } from '../../ground/store/database.ts';

/**
 * An article whose links to articles of ours lead to what the same brief made of them in another language, where that is
 * live: who reads in a language goes on in it.
 */
export async function ledToSiblings(sql: Sql, document: ArticleDocument, language: string): Promise<ArticleDocument> {
  const linked = linkedArticles(document);
  if (linked.length === 0) return document;
  const rows = await sql.rows<{ article: string; sibling: string }>(
    `SELECT a.id AS article, MIN(s.id) AS sibling FROM article a
     JOIN article s ON s.brief = a.brief AND s.id <> a.id AND s.language = ?
     JOIN publication p ON p.article = s.id AND p.state = 'live' AND p.as_ = 'live'
     WHERE a.id IN (?) AND a.language <> ? GROUP BY a.id`,
    [language, linked, language],
  );
  return { ...document, body: leadingTo(document.body, new Map(rows.map((row) => [row.article, row.sibling]))) };
}
