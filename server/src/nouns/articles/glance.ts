import {
  type ArticleDocument,
  articlePlain,
  measureBits,
  type OutOfRange,
  outOfRange,
  type Passage,
  searchedWordsIn,
  searchWords,
} from '@grivo/core';
import type { Ground } from '../../ground/ground.ts';
import type { Sql } from '../../ground/store/database.ts';
import { tellChange } from '../../ground/store/event.ts';
import { sharesOf } from '../../ports/money/shares.ts';
import { passagesById } from '../materials/repository.ts';
import { besideOf } from './beside.ts';
import { passagesGiven } from './list.ts';
import { measuresOfRevision } from './measures.ts';
import { keepRuns } from './ownWords.ts';
import { revisionOrNone } from './repository.ts';
import { noteWords } from './wordIndex.ts';

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
export async function noteGlances(ground: Ground): Promise<number> {
  const { db } = ground;
  const due = await db.rows<{ id: string; brief: string; current: string | null }>(
    `SELECT id, brief, current FROM article WHERE glance_due = 1 LIMIT ${AT_ONCE}`,
  );
  for (const article of due) {
    const { id, current } = article;
    // What is typed at just now is noted when it has come to rest.
    const document = current === null ? null : await revisionOrNone(db, current);
    if (current !== null && !document) continue;
    const glance = document ? await glanceOf(db, article, document) : null;
    await db.transaction(async (sql) => {
      const [still] = await sql.rows<{ n: number; current: string | null }>(
        'SELECT n, current FROM article WHERE id = ? FOR UPDATE',
        [id],
      );
      if (!still || still.current !== current) return;
      if (glance && document) {
        await keepGlance(sql, { id, n: still.n }, current!, glance);
        await keepRuns(sql, id, document);
      }
      await sql.run('UPDATE article SET glanced = ? WHERE id = ?', [current, id]);
      // What its blogs show is another text now, or this one again.
      await sql.run(
        "UPDATE publication SET behind = IF(revision <> ?, 1, 0) WHERE article = ? AND state = 'live' AND revision IS NOT NULL",
        [current, id],
      );
    });
  }
  // Lists on the screen are read again, once for all of them.
  const [last] = due;
  if (last) await tellChange(db, ground, 'article', last.id);
  return due.length;
}

interface Glance {
  marks: OutOfRange[];
  /** What it cost until now. */
  micros: number;
  words: string;
}

async function glanceOf(
  sql: Sql,
  article: { id: string; brief: string; current: string | null },
  document: ArticleDocument,
): Promise<Glance> {
  const { sources } = await sourcesOf(sql, article.brief, document);
  const [beside, shares] = await Promise.all([besideOf(sql, article, document), sharesOf(sql, [article])]);
  return {
    marks: outOfRange(measuresOfRevision(article.current!, document, sources, beside).measures),
    micros: shares.get(article.id) ?? 0,
    words: searchWords(document.title, `${document.description}\n${document.keyPhrase}\n${articlePlain(document)}`),
  };
}

async function keepGlance(
  sql: Sql,
  { id: article, n }: { id: string; n: number },
  revision: string,
  { marks, micros, words }: Glance,
): Promise<void> {
  const now = searchedWordsIn(words);
  const before = await wordsBefore(sql, article);
  await noteWords(sql, n, {
    come: [...now].filter((word) => !before.has(word)),
    gone: [...before].filter((word) => !now.has(word)),
  });
  await sql.run(
    'REPLACE INTO article_glance (article, revision, marks, out_of_range, words, micros) VALUES (?, ?, ?, ?, ?, ?)',
    [article, revision, measureBits(marks.map(({ name }) => name)), JSON.stringify(marks), words, micros],
  );
}

async function wordsBefore(sql: Sql, article: string): Promise<Set<string>> {
  const [row] = await sql.rows<{ words: string }>('SELECT words FROM article_glance WHERE article = ?', [article]);
  return searchedWordsIn(row?.words ?? '');
}

/** Takes the words of articles out of the index, of briefs that are forgotten. */
export async function forgetGlances(sql: Sql, briefs: readonly string[]): Promise<void> {
  const articles = await sql.rows<{ id: string; n: number }>(
    'SELECT id, n FROM article WHERE brief IN (?) ORDER BY n',
    [briefs],
  );
  for (const { id, n } of articles) {
    await noteWords(sql, n, { come: [], gone: [...(await wordsBefore(sql, id))] });
    await sql.run('DELETE FROM article_glance WHERE article = ?', [id]);
    await sql.run('DELETE FROM article_run WHERE article = ?', [id]);
  }
}
