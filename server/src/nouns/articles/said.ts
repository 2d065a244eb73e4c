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
  /** The same where it is one word that must, or may not, stand there. */
  single?: { word: string; not: boolean };
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

/** One word must stand there, or may not. */
const single = (word: string, without = false): Said => ({
  ...(without ? not(looked(word)) : { ...oneOf([word]), any: [word] }),
  single: { word, not: without },
});

/** What a term asks of an article. */
async function asked(sql: Sql, term: SearchTerm): Promise<Said[]> {
  const { words } = term;
  if (words.length > 1) {
    const order = inOrder(words);
    if (term.not) return [not(order)];
    return [...[...new Set(words)].map((word) => single(word)), { ...order, any: [] }];
  }
  const any = term.begins ? await beginningWith(sql, words[0]!) : words;
  if (any.length === 0) return [{ text: term.not ? 'TRUE' : 'FALSE', values: [], any: [] }];
  if (any.length === 1) return [single(any[0]!, term.not)];
  return [term.not ? not(oneOf(any)) : { ...oneOf(any), any }];
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

/** A word the list is gone through along, the single words that must or may not stand there too, and what else is asked. */
export interface Along {
  word: string;
  words: { word: string; not: boolean }[];
  rest: Condition[];
}

/**
 * The single word that fewest articles say: the list is gone through along it, from the newest on. Null where there is none,
 * or where beginnings of words are rarer than it; of those the database finds its way by itself.
 */
export async function alongRarest(sql: Sql, said: readonly Said[]): Promise<Along | null> {
  let rarest: { at: number; n: number } | null = null;
  for (const [at, { any }] of said.entries()) {
    if (any.length === 0) continue;
    const [row] = await sql.rows<{ n: number }>(
      `SELECT COUNT(*) AS n FROM (SELECT 1 FROM article_word WHERE word IN (?) LIMIT ${COMMON}) c`,
      [any],
    );
    const n = Number(row!.n);
    const isSingle = any.length === 1;
    if (rarest === null || n < rarest.n || (isSingle && n === rarest.n)) rarest = { at, n };
  }
  const any = rarest === null ? [] : said[rarest.at]!.any;
  if (rarest === null || any.length !== 1) return null;
  const rest = said.filter((_, at) => at !== rarest.at);
  return {
    word: any[0]!,
    words: rest.flatMap(({ single }) => single ?? []),
    rest: rest.filter(({ single }) => single === undefined),
  };
}

/** Articles of one go: more are asked for where what else is asked leaves too few of them. */
const GO = 400;

/** The next articles, newest first, that say a word and all single words that go with it. */
export async function nextAlong(
  sql: Sql,
  { word, words }: Pick<Along, 'word' | 'words'>,
  before: string,
  limit = GO,
): Promise<string[]> {
  // Each is one look into the index; nothing else of an article is read. Joined, a look takes a tenth of what it takes in a
  // subquery, and the word the list is gone through along comes first.
  const looks = words.map(
    ({ not }, at) =>
      `${not ? 'LEFT JOIN' : 'JOIN'} article_word w${at} ON w${at}.word = ? AND w${at}.article = d.article`,
  );
  const without = words.flatMap(({ not }, at) => (not ? [` AND w${at}.article IS NULL`] : []));
  const rows = await sql.rows<{ id: string }>(
    `SELECT STRAIGHT_JOIN d.article AS id FROM article_word d ${looks.join(' ')} WHERE d.word = ? AND d.article < ?${without.join('')} ORDER BY d.article DESC LIMIT ?`,
    [...words.map((one) => one.word), word, before, limit],
  );
  return rows.map(({ id }) => id);
}
