import {
  type ArticleDocument,
  articlePlain,
  measureBits,
  type OutOfRange,
  outOfRange,
  type Passage,
  searchWords,
} from '@grivo/core';
import type { Sql } from '../../ground/store/database.ts';
import { passagesById } from '../materials/repository.ts';
import { passagesGiven } from './list.ts';
import { measuresOfRevision } from './measures.ts';
import { revisionOrNone } from './repository.ts';

/** Articles that are noted in one go. */
const AT_ONCE = 30;

/** What an article is held against: all its brief was given, else what it names itself; and which of these it names. */
export async function sourcesOf(
  sql: Sql,
  brief: string,
  { body }: ArticleDocument,
): Promise<{ named: Passage[]; sources: Passage[] }> {
  const named = await passagesById(sql, [
    ...new Set(body.flatMap((block) => block.evidence?.map(({ passage }) => passage) ?? [])),
  ]);
  const all = await passagesGiven(sql, brief);
  return { named, sources: all.length > 0 ? all : named };
}

/**
 * Notes what lists show of articles and find them by, of those that were changed since.
 * @returns how many there were
 */
export async function noteGlances(sql: Sql): Promise<number> {
  const due = await sql.rows<{ id: string; brief: string; current: string | null }>(
    `SELECT id, brief, current FROM article WHERE glance_due = 1 LIMIT ${AT_ONCE}`,
  );
  for (const { id, brief, current } of due) {
    // What is typed at just now is noted when it has come to rest.
    const document = current === null ? null : await revisionOrNone(sql, current);
    if (current !== null && document) await noteGlance(sql, { id, brief, current }, document);
    if (current === null || document) await sql.run('UPDATE article SET glanced = ? WHERE id = ?', [current, id]);
  }
  return due.length;
}

async function noteGlance(
  sql: Sql,
  { id, brief, current }: { id: string; brief: string; current: string },
  document: ArticleDocument,
): Promise<void> {
  const { sources } = await sourcesOf(sql, brief, document);
  const marks: OutOfRange[] = outOfRange(measuresOfRevision(current, document, sources).measures);
  await sql.run('REPLACE INTO article_glance (article, revision, marks, out_of_range, words) VALUES (?, ?, ?, ?, ?)', [
    id,
    current,
    measureBits(marks.map(({ name }) => name)),
    JSON.stringify(marks),
    searchWords(document.title, `${document.description}\n${document.keyPhrase}\n${articlePlain(document)}`),
  ]);
}
