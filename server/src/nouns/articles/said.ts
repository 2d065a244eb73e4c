import type { SearchTerm } from '@grivo/core';
import type { Sql } from '../../ground/store/database.ts';

/** A part of a statement with its parameters; the article is `a`. */
export interface Condition {
  text: string;
  values: unknown[];
}

/** Something an article must say, or may not: any of some words, or words in a row. */
export interface Said extends Condition {
  /** Words of which one is asked about; empty where it is asked otherwise. */
  words: readonly string[];
  /** Words in a row, as they stand in what is noted of an article. */
  row: string | null;
  /** What one of the words begins with, where only a beginning was typed. */
  begins: string | null;
  /** That it is not there. */
  not: boolean;
}

/** Words that begin alike of which one is looked for; the others are found when more of the word is typed. */
const MOST_BEGINNINGS = 60;
/** Behind all words that begin with the same letters. */
const LAST = '\u{10FFFF}';
/** So many articles say a common word, at least. */
const COMMON = 30_000;
/** The same where something may not be there: who meets nearly all of them soonest may find that hardly any is left. */
const COMMON_BUT = 80_000;

/** The words of the index that begin as a word that was typed. */
async function beginningWith(sql: Sql, word: string): Promise<string[]> {
  const rows = await sql.rows<{ word: string }>(
    'SELECT DISTINCT word FROM article_word WHERE word >= ? AND word < ? ORDER BY word LIMIT ?',
    [word, word + LAST, MOST_BEGINNINGS],
  );
  return rows.map((row) => row.word);
}

const oneOf = (words: readonly string[]): Condition =>
  words.length === 1
    ? { text: 'a.id IN (SELECT w.article FROM article_word w WHERE w.word = ?)', values: [words[0]] }
    : { text: 'a.id IN (SELECT w.article FROM article_word w WHERE w.word IN (?))', values: [words] };

/** The same, looked up for each article there is: for those that are few already. */
const looked = (word: string): Condition => ({
  text: '(SELECT 1 FROM article_word w WHERE w.word = ? AND w.article = a.id) = 1',
  values: [word],
});

const denied = ({ text, values }: Condition): Condition => ({ text: `NOT COALESCE(${text}, FALSE)`, values });

const ofWords = (words: readonly string[], not = false, begins: string | null = null): Said => ({
  ...(not ? denied(words.length === 1 ? looked(words[0]!) : oneOf(words)) : oneOf(words)),
  words,
  row: null,
  begins,
  not,
});

function inOrder(words: readonly string[], not: boolean): Said {
  const row = ` ${words.join(' ')} `;
  const stands = {
    text: '(SELECT LOCATE(?, y.words) FROM article_glance y WHERE y.article = a.id) > 0',
    values: [row],
  };
  return { ...(not ? denied(stands) : stands), words: [], row, begins: null, not };
}

/** What a term asks of an article. */
async function asked(sql: Sql, term: SearchTerm): Promise<Said[]> {
  const { words, not } = term;
  if (words.length > 1) {
    const order = inOrder(words, not);
    return not ? [order] : [...[...new Set(words)].map((word) => ofWords([word])), order];
  }
  const any = term.begins ? await beginningWith(sql, words[0]!) : words;
  return any.length === 0
    ? [{ text: not ? 'TRUE' : 'FALSE', values: [], words: [], row: null, begins: null, not }]
    : [ofWords(any, not, term.begins ? words[0]! : null)];
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

/** What the list is gone through along, what the index tells beside it, and what else is asked. */
export interface Along {
  words: readonly string[];
  beside: readonly Said[];
  rest: readonly Condition[];
}

const isTold = ({ words, row }: Said): boolean => words.length > 0 || row !== null;

/**
 * The words that fewest articles say: the list is gone through along them, from the newest on. Null where there are none, and
 * where a beginning stands for so many that the newest articles nearly all say one: the database meets them soonest.
 */
export async function alongRarest(sql: Sql, said: readonly Said[]): Promise<Along | null> {
  const asked = said.filter(({ words, not }) => words.length > 0 && !not);
  const [only] = asked;
  // Nothing to choose from, and nothing beside it.
  if (only && said.length === 1) return only.words.length === 1 ? { words: only.words, beside: [], rest: [] } : null;
  // About how many, as the database reckons it from its index: counted, tens of thousands would be walked through.
  const counts = await Promise.all(
    asked.map(async ({ words }) => {
      const [row] = await sql.rows<{ rows: number }>('EXPLAIN SELECT 1 FROM article_word WHERE word IN (?)', [words]);
      return Number(row?.rows ?? 0);
    }),
  );
  const least = counts.indexOf(Math.min(...counts));
  const rarest = asked[least];
  const most = said.some(({ not }) => not) ? COMMON_BUT : COMMON;
  if (!rarest || (rarest.words.length > 1 && counts[least]! >= most)) return null;
  const others = said.filter((one) => one !== rarest);
  return {
    words: rarest.words,
    beside: others.filter(isTold),
    rest: others.filter((one) => !isTold(one)),
  };
}

/** What is noted of the texts of articles, for `inTexts`. */
export const TEXTS = ' LEFT JOIN article_glance y ON y.article = a.id';

/**
 * The same conditions for articles that are met one after the other. Where several beginnings are asked about that many say,
 * each text is read: an index would be asked for every word that begins so.
 */
export const inTexts = (said: readonly Said[]): Condition[] =>
  said.length < 2
    ? [...said]
    : said.map((one) =>
        one.begins === null || one.not ? one : { text: 'LOCATE(?, y.words) > 0', values: [` ${one.begins}`] },
      );

/** Articles that were found, and behind which one to go on; null where there are no more. */
export interface Next {
  ids: string[];
  behind: string | null;
}

const nextOf = (ids: string[], limit: number): Next => ({ ids, behind: ids.length < limit ? null : ids.at(-1)! });

/**
 * The next articles, newest first, that say one of some words and what goes with it.
 * @param isFirst whether nothing was looked through yet: where most of what is met fits, little of it has to be
 */
export async function nextAlong(
  sql: Sql,
  along: Pick<Along, 'words' | 'beside'>,
  before: string,
  limit: number,
  isFirst: boolean,
): Promise<Next> {
  const { words, beside } = along;
  if (words.length > 1 && beside.length > 0 && beside.every((one) => one.words.length > 1)) {
    if (isFirst && beside.every(({ begins, not }) => begins !== null && !not))
      return nextByText(sql, words, beside, before, limit);
    return nextOf(await nextOfBeginnings(sql, words, beside, before, limit), limit);
  }
  return nextOf(await nextOfWords(sql, along, before, limit), limit);
}

async function nextOfWords(
  sql: Sql,
  { words, beside }: Pick<Along, 'words' | 'beside'>,
  before: string,
  limit: number,
): Promise<string[]> {
  // Joined, a look into the index takes a tenth of what it takes in a subquery; nothing else of an article is read.
  const joins: Condition[] = [];
  const where: Condition[] = [];
  for (const [at, one] of beside.entries()) {
    const [word, ...more] = one.words;
    if (one.row !== null) where.push({ text: `LOCATE(?, y.words) ${one.not ? '=' : '>'} 0`, values: [one.row] });
    else if (more.length > 0)
      where.push({
        text: `d.article ${one.not ? 'NOT ' : ''}IN (SELECT w.article FROM article_word w WHERE w.word IN (?))`,
        values: [one.words],
      });
    else {
      const join = one.not ? 'LEFT JOIN' : 'JOIN';
      joins.push({
        text: `${join} article_word w${at} ON w${at}.word = ? AND w${at}.article = d.article`,
        values: [word],
      });
      if (one.not) where.push({ text: `w${at}.article IS NULL`, values: [] });
    }
  }
  if (beside.some(({ row }) => row !== null))
    joins.push({ text: 'JOIN article_glance y ON y.article = d.article', values: [] });
  // Of several words each article is looked up once, though it says more than one of them.
  const [from, own] =
    words.length === 1
      ? ['article_word d', [{ text: 'd.word = ?', values: [words[0]] }]]
      : ['(SELECT DISTINCT article FROM article_word WHERE word IN (?)) d', []];
  const told = allOf([...own, { text: 'd.article < ?', values: [before] }, ...where]);
  const rows = await sql.rows<{ id: string }>(
    `SELECT STRAIGHT_JOIN d.article AS id FROM ${from} ${joins.map(({ text }) => text).join(' ')}
     WHERE ${told.text} ORDER BY d.article DESC LIMIT ?`,
    [...(words.length === 1 ? [] : [words]), ...joins.flatMap(({ values }) => values), ...told.values, limit],
  );
  return rows.map(({ id }) => id);
}

/** The newest that say one of some words, and of them those whose text has words that begin as was typed. */
async function nextByText(
  sql: Sql,
  words: readonly string[],
  beside: readonly Said[],
  before: string,
  limit: number,
): Promise<Next> {
  const newest = await sql.rows<{ id: string }>(
    'SELECT DISTINCT article AS id FROM article_word WHERE word IN (?) AND article < ? ORDER BY id DESC LIMIT ?',
    [words, before, limit],
  );
  if (newest.length === 0) return { ids: [], behind: null };
  const all = newest.map(({ id }) => id);
  const rows = await sql.rows<{ id: string }>(
    `SELECT article AS id FROM article_glance WHERE article IN (?) AND ${beside.map(() => 'LOCATE(?, words) > 0').join(' AND ')} ORDER BY id DESC`,
    [all, ...beside.map(({ begins }) => ` ${begins}`)],
  );
  return { ids: rows.map(({ id }) => id), behind: nextOf(all, limit).behind };
}

/** The same of beginnings of words alone: what all of them lead to, without what those lead to that may not be there. */
async function nextOfBeginnings(
  sql: Sql,
  words: readonly string[],
  beside: readonly Said[],
  before: string,
  limit: number,
): Promise<string[]> {
  const sets = [{ words, not: false }, ...beside].sort((a, b) => Number(a.not) - Number(b.not));
  const parts = sets.map(({ not }, i) => {
    const joins = i === 0 ? '' : not ? 'EXCEPT ' : 'INTERSECT ';
    return `${joins}(SELECT article AS id FROM article_word WHERE word IN (?) AND article < ?)`;
  });
  const rows = await sql.rows<{ id: string }>(`${parts.join(' ')} ORDER BY id DESC LIMIT ?`, [
    ...sets.flatMap((one) => [one.words, before]),
    limit,
  ]);
  return rows.map(({ id }) => id);
}
