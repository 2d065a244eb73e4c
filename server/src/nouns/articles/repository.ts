import { ArticleDocumentSchema } from '@grivo/contract';
import { type ArticleDocument, articleWords, type ownStanding, upgradedArticle } from '@grivo/core';
import type { Ground } from '../../ground/ground.ts';
import type { Sql } from '../../ground/store/database.ts';
import { changeWrite } from '../../ground/store/event.ts';
import type { Write } from '../../ground/store/write.ts';

export interface ArticleRow {
  id: string;
  brief: string;
  line: string;
  blog: string | null;
  family: string;
  language: string;
  trial: number;
  standing: ReturnType<typeof ownStanding>;
  current: string | null;
  title: string;
  words: number;
  rev: number;
  created_at: Date;
}

/** The article of a brief's line, made when there is none yet. */
export async function ensureArticle(
  ground: Ground,
  brief: { id: string; trial: boolean },
  line: string,
  language: string,
): Promise<string> {
  const there = async () => {
    const rows = await ground.db.rows<{ id: string }>('SELECT id FROM article WHERE brief = ? AND line = ?', [
      brief.id,
      line,
    ]);
    return rows[0]?.id;
  };
  const before = await there();
  if (before !== undefined) return before;
  // Another may make it in between.
  await ground.db.run(
    'INSERT IGNORE INTO article (id, brief, line, family, language, trial) VALUES (?, ?, ?, ?, ?, ?)',
    [ground.ids(), brief.id, line, brief.id, language, brief.trial ? 1 : 0],
  );
  return (await there())!;
}

/**
 * Adds a sealed revision made by a step, or at it by a person. It is written before the step ends and counts only once the step's end points
 * the article at it, so one left behind by a crash is never seen.
 */
export async function addRevision(
  ground: Ground,
  article: string,
  parent: string | null,
  stepRun: string,
  document: ArticleDocument,
  person: string | null = null,
  words = articleWords(document),
): Promise<{ revision: string; words: number; writes: Write[] }> {
  const revision = ground.ids();
  await ground.db.run(
    'INSERT INTO article_revision (id, article, parent, by_step, by_person, document, words, sealed_at) VALUES (?, ?, ?, ?, ?, ?, ?, UTC_TIMESTAMP(3))',
    [revision, article, parent, stepRun, person, JSON.stringify(document), words],
  );
  const writes: Write[] = [
    {
      text: 'UPDATE article SET current = ?, edited_from = NULL, title = ?, words = ?, language = ?, rev = rev + 1 WHERE id = ?',
      parameters: [revision, document.title.slice(0, 500), words, document.language, article],
    },
    changeWrite(ground.ids, 'article', article),
  ];
  return { revision, words, writes };
}

export async function readRevision(sql: Sql, revision: string): Promise<ArticleDocument> {
  const document = await revisionOrNone(sql, revision);
  if (!document) throw new Error(`there is no revision ${revision}`);
  return document;
}

/** A revision, or null where somebody who is typing has made another of it meanwhile. */
export async function revisionOrNone(sql: Sql, revision: string): Promise<ArticleDocument | null> {
  const [row] = await sql.rows<{ document: unknown }>('SELECT document FROM article_revision WHERE id = ?', [revision]);
  return row ? ArticleDocumentSchema.parse(upgradedArticle(row.document)) : null;
}

/** Public addresses of our own articles that are out, for links to them. */
export async function addressesOf(sql: Sql, articles: readonly string[]): Promise<Map<string, string>> {
  if (articles.length === 0) return new Map();
  const rows = await sql.rows<{ article: string; address: string }>(
    "SELECT article, address FROM publication WHERE article IN (?) AND state = 'live' AND address IS NOT NULL",
    [articles],
  );
  return new Map(rows.map((row) => [row.article, row.address]));
}

export async function getArticle(sql: Sql, id: string): Promise<ArticleRow | null> {
  const [row] = await sql.rows<ArticleRow>(
    'SELECT id, brief, line, blog, family, language, trial, standing, current, title, words, rev, created_at FROM article WHERE id = ?',
    [id],
  );
  return row ?? null;
}
