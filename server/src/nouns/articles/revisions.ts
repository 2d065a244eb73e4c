import type { RevisionLine } from '@grivo/contract';
import type { Sql } from '../../ground/store/database.ts';

/** Every revision of an article, the newest first: who or what made it, and where it is out. */
export async function revisionsOf(sql: Sql, article: string, limit = 200): Promise<RevisionLine[]> {
  const rows = await sql.rows<Omit<RevisionLine, 'on'>>(
    `SELECT v.id, v.created_at AS at, v.words, n.name AS person, r.kind AS step, v.id = a.current AS current
     FROM article_revision v JOIN article a ON a.id = v.article LEFT JOIN person n ON n.id = v.by_person
     LEFT JOIN step_run r ON r.id = v.by_step
     WHERE v.article = ? ORDER BY v.id DESC LIMIT ?`,
    [article, limit],
  );
  const out = await sql.rows<{ revision: string; blog: string }>(
    "SELECT p.revision, b.name AS blog FROM publication p JOIN blog b ON b.id = p.blog WHERE p.article = ? AND p.state IN ('draft', 'live')",
    [article],
  );
  return rows.map((row) => ({
    ...row,
    current: Boolean(row.current),
    on: out.filter(({ revision }) => revision === row.id).map(({ blog }) => blog),
  }));
}

/** Whether a revision is one of an article. */
export async function isOfArticle(sql: Sql, article: string, revision: string): Promise<boolean> {
  return (
    (await sql.rows('SELECT 1 FROM article_revision WHERE id = ? AND article = ?', [revision, article])).length > 0
  );
}

/** The run of the step that made an article last, for the books; null when it was never made by one. */
export async function madeBy(sql: Sql, article: string): Promise<string | null> {
  const [row] = await sql.rows<{ run: string }>(
    'SELECT by_step AS run FROM article_revision WHERE article = ? AND by_step IS NOT NULL ORDER BY id DESC LIMIT 1',
    [article],
  );
  return row?.run ?? null;
}
