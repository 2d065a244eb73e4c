import type { SearchTerm } from '@grivo/core';
import type { Sql } from '../../ground/store/database.ts';
import { SAYS_ONE_OF, type Saying, wordsBeginning } from './wordIndex.ts';

/** A part of a statement with its parameters; the article is `a`. */
export interface Condition {
  text: string;
  values: unknown[];
}

/** Something an article must say, or may not: any of some words, or words in a row. */
export interface Said extends Condition {
  /** Words of which one is asked about; null where the index does not tell it. */
  saying: Saying | null;
}

/** What is noted of the texts of articles, which some of these conditions speak of. */
export const TEXTS = ' LEFT JOIN article_glance y ON y.article = a.id';

/** Words that begin alike of which one is looked for; the others are found when more of the word is typed. */
const MOST_BEGINNINGS = 60;

const unless = (not: boolean, { text, values }: Condition): Condition =>
  not ? { text: `NOT COALESCE(${text}, FALSE)`, values } : { text, values };

const ofWords = (words: readonly string[], not: boolean): Said => ({
  ...unless(not, { text: SAYS_ONE_OF, values: [words] }),
  saying: { words, not },
});

const IMPLIED = 'TRUE';

/** A word of several in a row: that they stand there tells it too, and the index sooner. */
const ofRow = (word: string): Said => ({ text: IMPLIED, values: [], saying: { words: [word], not: false } });

const inOrder = (words: readonly string[], not: boolean): Said => ({
  ...unless(not, {
    // By bytes: letter by letter it takes three times as long, and tells the same.
    text: 'LOCATE(BINARY ?, BINARY y.words) > 0',
    values: [` ${words.join(' ')} `],
  }),
  saying: null,
});

/** What a term asks of an article. */
async function asked(sql: Sql, { words, begins, not }: SearchTerm): Promise<Said[]> {
  if (words.length > 1) {
    const order = inOrder(words, not);
    return not ? [order] : [...[...new Set(words)].map(ofRow), order];
  }
  const any = begins ? await wordsBeginning(sql, words[0]!, MOST_BEGINNINGS) : words;
  if (any.length > 0) return [ofWords(any, not)];
  return not ? [] : [{ text: 'FALSE', values: [], saying: null }];
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

/** What the index tells of all that is asked, and what is asked else. */
export interface Parted {
  sayings: readonly Saying[];
  rest: readonly Condition[];
}

/** Tables of one statement are not to be more than 61; all that must be asked of the index is 36 words. */
const MOST_ASKED = 44;

/** @returns null where nothing can fit: a word is asked for that no article says */
export function parted(said: readonly Said[]): Parted | null {
  const must = said.filter(({ text }) => text !== IMPLIED).flatMap(({ saying }) => saying ?? []);
  const implied = said.filter(({ text }) => text === IMPLIED).flatMap(({ saying }) => saying ?? []);
  const sayings = [...must, ...implied.slice(0, Math.max(0, MOST_ASKED - must.length))];
  return sayings.some(({ not }) => !not) && said.every(({ text }) => text !== 'FALSE')
    ? { sayings, rest: said.filter(({ saying }) => saying === null) }
    : null;
}
