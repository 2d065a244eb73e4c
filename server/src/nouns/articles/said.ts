import type { SearchTerm } from '@grivo/core';
import type { Sql } from '../../ground/store/database.ts';

/** A part of a statement with its parameters; the article is `a`. */
export interface Condition {
  text: string;
  values: unknown[];
}

/** Something an article must say: any of some words, words in an order, or what may not be there. */
export interface Said extends Condition {
  /** Words of which each article that fits says one; empty where that tells nothing. */
  any: readonly string[];
}

/** Words that begin alike of which one is looked for; the others are found when more of the word is typed. */
const MOST_BEGINNINGS = 60;
/** Behind all words that begin with the same letters. */
const LAST = '\u{10FFFF}';
/** So many articles say a common word, at least. */
const COMMON = 10_000;

/** The words of the index that begin as a word that was typed. */
async function beginningWith(sql: Sql, word: string): Promise<string[]> {
  const rows = await sql.rows<{ word: string }>(
    'SELECT DISTINCT word FROM article_word WHERE word >= ? AND word < ? ORDER BY word LIMIT ?',
    [word, word + LAST, MOST_BEGINNINGS],
  );
  return rows.map((row) => row.word);
}

const oneOf = (any: readonly string[]): Condition =>
  any.length === 1
    ? { text: 'a.id IN (SELECT w.article FROM article_word w WHERE w.word = ?)', values: [any[0]] }
    : { text: 'a.id IN (SELECT w.article FROM article_word w WHERE w.word IN (?))', values: [any] };

/** The same, looked up for each article there is: for those that are few already. */
const looked = (word: string): Condition => ({
  text: '(SELECT 1 FROM article_word w WHERE w.word = ? AND w.article = a.id) = 1',
  values: [word],
});

const inOrder = (words: readonly string[]): Condition => ({
  text: '(SELECT LOCATE(?, y.words) FROM article_glance y WHERE y.article = a.id) > 0',
  values: [` ${words.join(' ')} `],
});

const not = ({ text, values }: Condition): Said => ({ text: `NOT COALESCE(${text}, FALSE)`, values, any: [] });

/** What a term asks of an article. */
async function asked(sql: Sql, term: SearchTerm): Promise<Said[]> {
  const { words } = term;
  if (words.length > 1) {
    const order = inOrder(words);
    if (term.not) return [not(order)];
    return [...[...new Set(words)].map((word) => ({ ...oneOf([word]), any: [word] })), { ...order, any: [] }];
  }
  const any = term.begins ? await beginningWith(sql, words[0]!) : words;
  if (any.length === 0) return [{ text: term.not ? 'TRUE' : 'FALSE', values: [], any: [] }];
  return [term.not ? not(any.length === 1 ? looked(any[0]!) : oneOf(any)) : { ...oneOf(any), any }];
}

/** What all terms ask. */
export async function saidOf(sql: Sql, terms: readonly SearchTerm[]): Promise<Said[]> {
  const all: Said[] = [];
  for (const term of terms) all.push(...(await asked(sql, term)));
  return all;
}

export function allOf(conditions: readonly Condition[]): Condition {
  return { text: conditions.map(({ text }) => text).join(' AND '), values: conditions.flatMap(({ values }) => values) };
}

/**
 * The word that fewest articles say, where even that is common: then the list is gone through along it, from the newest on,
 * and everything else is looked up for each. Of rare words the database finds its way by itself.
 */
export async function alongCommon(
  sql: Sql,
  said: readonly Said[],
): Promise<{ word: string; rest: Condition[] } | null> {
  let rarest: { at: number; n: number } | null = null;
  for (const [at, { any }] of said.entries()) {
    if (any.length === 0) continue;
    const [row] = await sql.rows<{ n: number }>(
      `SELECT COUNT(*) AS n FROM (SELECT 1 FROM article_word WHERE word IN (?) LIMIT ${COMMON}) c`,
      [any],
    );
    if (rarest === null || Number(row!.n) < rarest.n) rarest = { at, n: Number(row!.n) };
  }
  const any = rarest === null ? [] : said[rarest.at]!.any;
  if (rarest === null || rarest.n < COMMON || any.length !== 1) return null;
  const rest = said.filter((_, at) => at !== rarest.at);
  return { word: any[0]!, rest: rest.map((one) => (one.any.length === 1 ? looked(one.any[0]!) : one)) };
}
