import { type ArticleDocument, articleWords, type Block, withoutBlanks } from '@grivo/core';
import type { Fields } from '../../engine/performer.ts';
import type { Ground } from '../../ground/ground.ts';
import type { Sql } from '../../ground/store/database.ts';
import { tellChange } from '../../ground/store/event.ts';
import { ArticleField, field } from './fields.ts';
import { readRevision } from './repository.ts';

/** Changes a person makes without a pause this long are one revision, as long as nobody used it. */
const SITTING_MS = 30 * 60_000;

export interface Edit {
  article: string;
  /** The revision it was made from. */
  base: string;
  document: ArticleDocument;
  person: string;
  /** Names one page on which somebody types; what is typed there in a row is one revision. */
  sitting: string;
}

export type Edited =
  | { kind: 'saved'; revision: string; document: ArticleDocument }
  /** Nothing of it is other than it was. */
  | { kind: 'same'; revision: string; document: ArticleDocument }
  /** Somebody else changed it meanwhile. */
  | { kind: 'overtaken' }
  /** A step is at it just now. */
  | { kind: 'busy' };

/**
 * Keeps what a person made of an article as its newest revision. It counts from then on for every step that follows and for
 * what goes out; what is on a blog already stays as it is there until somebody brings the change to it.
 */
export async function saveEdit(ground: Ground, { article, base, document, person, sitting }: Edit): Promise<Edited> {
  const kept = withoutBlanks(document);
  const text = JSON.stringify(kept);
  return ground.db.transaction(async (sql): Promise<Edited> => {
    const [row] = await sql.rows<{ brief: string; current: string | null; edited_from: string | null }>(
      'SELECT brief, current, edited_from FROM article WHERE id = ? FOR UPDATE',
      [article],
    );
    if (row?.current !== base) return { kind: 'overtaken' };
    if (JSON.stringify(await readRevision(sql, base)) === text) return { kind: 'same', revision: base, document: kept };
    if (await isBusy(sql, row.brief)) return { kind: 'busy' };
    const [before] = await sql.rows<{ parent: string | null }>(
      `SELECT parent FROM article_revision WHERE id = ? AND sealed_at IS NULL AND by_person = ? AND sitting = ?
       AND created_at > UTC_TIMESTAMP(3) - INTERVAL ${SITTING_MS / 1_000} SECOND FOR UPDATE`,
      [base, person, sitting],
    );
    const revision = ground.ids();
    const words = articleWords(kept);
    await sql.run(
      `INSERT INTO article_revision (id, article, parent, by_person, sitting, document, words, created_at)
       SELECT ?, ?, ?, ?, ?, ?, ?, ${before ? 'created_at FROM article_revision WHERE id = ?' : 'UTC_TIMESTAMP(3)'}`,
      [revision, article, before ? before.parent : base, person, sitting, text, words, ...(before ? [base] : [])],
    );
    if (before) await sql.run('DELETE FROM article_revision WHERE id = ?', [base]);
    await sql.run(
      'UPDATE article SET current = ?, edited_from = COALESCE(edited_from, ?), title = ?, words = ?, language = ?, rev = rev + 1 WHERE id = ?',
      [revision, base, kept.title.slice(0, 500), words, kept.language, article],
    );
    await tellChange(sql, ground, 'article', article);
    return { kind: 'saved', revision, document: kept };
  });
}

/** The document with everything that is newly answered for answered for by this person, whatever it says. */
export function answeredBy(document: ArticleDocument, before: ArticleDocument, person: string): ArticleDocument {
  const known = new Set(before.body.flatMap((block) => (block.vouched ?? []).map((one) => JSON.stringify(one))));
  const body = document.body.map((block): Block => {
    if (!block.vouched) return block;
    const vouched = block.vouched.map((one) => (known.has(JSON.stringify(one)) ? one : { ...one, by: person }));
    return { ...block, vouched };
  });
  return { ...document, body };
}

/** Whether a step of the brief is being done or about to be: it might make the article anew from what it was. */
export async function isBusy(sql: Sql, brief: string): Promise<boolean> {
  const rows = await sql.rows(
    "SELECT 1 FROM step_run FORCE INDEX (step_run_path) WHERE brief = ? AND (state IN ('ready', 'running') OR state = 'waiting' AND for_slot = 0) LIMIT 1",
    [brief],
  );
  return rows.length > 0;
}

/** The article a step was given, with what people changed of it since; null when no step before gave one. */
export async function givenArticle(sql: Sql, fields: Fields): Promise<ArticleField | null> {
  const given = field(fields, 'article', ArticleField);
  return given && newestOf(sql, given);
}

/** An article in the newest revision people made of the one a step handed on. */
export async function newestOf(sql: Sql, given: ArticleField): Promise<ArticleField> {
  const [edited] = await sql.rows<{ revision: string; words: number }>(
    'SELECT current AS revision, words FROM article WHERE id = ? AND edited_from = ?',
    [given.id, given.revision],
  );
  return edited ? { ...given, ...edited } : given;
}

/** The same, kept as it is from now on: changes made later are another revision. */
export async function sealedNewest(sql: Sql, given: ArticleField): Promise<ArticleField> {
  for (;;) {
    const newest = await newestOf(sql, given);
    if (await seal(sql, newest.revision)) return newest;
  }
}

/** Keeps a revision as it is for ever. @returns whether it is still there */
export async function seal(sql: Sql, revision: string): Promise<boolean> {
  const n = await sql.run(
    'UPDATE article_revision SET sealed_at = COALESCE(sealed_at, UTC_TIMESTAMP(3)) WHERE id = ?',
    [revision],
  );
  return n > 0;
}
