import type { ArticlesWanted } from '@grivo/contract';
import { LISTED_MEASURES, measureBits, type SearchTerm, searchTerms } from '@grivo/core';
import type { Sql } from '../../ground/store/database.ts';
import { ofLabel } from '../labels/repository.ts';

/** The publication a list shows of an article that has several: one readers see, first. */
export const SHOWN_PUBLICATION =
  "(SELECT q.id FROM publication q WHERE q.article = a.id ORDER BY q.state = 'live' DESC, q.address IS NULL, q.id LIMIT 1)";
/** The placement a list shows: that of the article's own blog, first. */
export const SHOWN_PLACEMENT =
  'l.article = a.id AND l.blog = (SELECT m.blog FROM placement m WHERE m.article = a.id ORDER BY m.blog <=> a.blog DESC, m.due_desk LIMIT 1)';

/** Which articles are wanted, as parts of a statement on `article a`. */
export interface Chosen {
  /** Tables its conditions speak of beside that one. */
  joins: string;
  where: string[];
  values: unknown[];
  /** That the title says all that was asked for, as a condition; null where nothing was. */
  inTitle: Condition | null;
  /** Desk clock; of those that are out, only the ones since then; null for all. */
  since: number | null;
}

export interface Condition {
  text: string;
  values: unknown[];
}

/** Words that begin alike of which one is looked for; the others are found when more of the word is typed. */
const MOST_BEGINNINGS = 60;
/** Behind all words that begin with the same letters. */
const LAST = '\u{10FFFF}';

/** The words of the index that begin as a word that was typed. */
async function beginningWith(sql: Sql, word: string): Promise<string[]> {
  const rows = await sql.rows<{ word: string }>(
    'SELECT DISTINCT word FROM article_word WHERE word >= ? AND word < ? ORDER BY word LIMIT ?',
    [word, word + LAST, MOST_BEGINNINGS],
  );
  return rows.map((row) => row.word);
}

/** That an article says a term, or does not. */
async function termed(sql: Sql, { words, begins, not }: SearchTerm): Promise<Condition> {
  const or = begins ? await beginningWith(sql, words[0]!) : [words[0]!];
  if (or.length === 0) return { text: not ? 'TRUE' : 'FALSE', values: [] };
  const inOrder = {
    text: 'EXISTS (SELECT 1 FROM article_glance y WHERE y.article = a.id AND LOCATE(?, y.words) > 0)',
    values: [` ${words.join(' ')} `],
  };
  if (not)
    return words.length > 1
      ? { text: `NOT ${inOrder.text}`, values: inOrder.values }
      : { text: 'NOT EXISTS (SELECT 1 FROM article_word w WHERE w.article = a.id AND w.word IN (?))', values: [or] };
  const each = words.length > 1 ? [...new Set(words)] : [or];
  return {
    text: [
      // One word of an article stands in the index once: the list is read along it.
      ...each.map((one) =>
        typeof one === 'string' || one.length === 1
          ? 'a.id IN (SELECT w.article FROM article_word w WHERE w.word = ?)'
          : 'a.id IN (SELECT w.article FROM article_word w WHERE w.word IN (?))',
      ),
      ...(words.length > 1 ? [inOrder.text] : []),
    ].join(' AND '),
    values: [...each.map((one) => (one.length === 1 ? one[0] : one)), ...(words.length > 1 ? inOrder.values : [])],
  };
}

async function allTermed(sql: Sql, terms: readonly SearchTerm[]): Promise<Condition> {
  const all: Condition[] = [];
  for (const term of terms) all.push(await termed(sql, term));
  return { text: all.map(({ text }) => text).join(' AND '), values: all.flatMap(({ values }) => values) };
}

/** Articles in a standing; one of a brief that is held or stopped is neither in work nor anything else. */
function inStanding(standing: ArticlesWanted['standing']): { where: string[]; values: unknown[] } {
  if (!standing) return { where: [], values: [] };
  if (standing === 'held' || standing === 'stopped')
    return { where: ["a.standing = 'in work'", 'b.standing = ?'], values: [standing] };
  return {
    where: ['a.standing = ?', ...(standing === 'in work' ? ["b.standing NOT IN ('held', 'stopped')"] : [])],
    values: [standing],
  };
}

const ofBrief = ({ standing, pipeline, label }: ArticlesWanted): boolean =>
  standing === 'held' || standing === 'stopped' || standing === 'in work' || Boolean(pipeline ?? label);

/**
 * The conditions of a list.
 * @param since desk clock; of those that are out, only the ones since then. What is not out is there all the same.
 */
export async function chosen(sql: Sql, wanted: ArticlesWanted, since: number | null = null): Promise<Chosen> {
  const { where, values } = inStanding(wanted.standing);
  const and = (condition: string, ...parameters: unknown[]) => {
    where.push(condition);
    values.push(...parameters);
  };
  const { blog, pipeline, label, language, mark, q, title } = wanted;
  if (blog)
    and(
      '(a.blog = ? OR EXISTS (SELECT 1 FROM publication o WHERE o.article = a.id AND o.blog = ?) OR EXISTS (SELECT 1 FROM placement o WHERE o.article = a.id AND o.blog = ?))',
      blog,
      blog,
      blog,
    );
  if (pipeline) and('b.pipeline = ?', pipeline);
  if (label) and(ofLabel({ pipeline: 'b.pipeline', blog: 'a.blog' }), label, label);
  if (language) and('a.language = ?', language);
  if (since !== null)
    and(
      `(a.standing NOT IN ('out', 'withdrawn') OR (SELECT o.out_desk FROM publication o WHERE o.id = ${SHOWN_PUBLICATION}) >= ?)`,
      since,
    );
  if (mark) and('(g.marks & ?) <> 0', measureBits(mark === 'any' ? LISTED_MEASURES : [mark]));
  let inTitle: Condition | null = null;
  for (const [typed, within] of [
    [q, 'text'],
    [title, 'title'],
  ] as const) {
    if (!typed?.trim()) continue;
    const terms = searchTerms(typed, within);
    // Something was typed of which nothing can be looked for: no article has it.
    const { text, values: parameters } = terms.length > 0 ? await allTermed(sql, terms) : { text: 'FALSE', values: [] };
    and(text, ...parameters);
    if (within === 'text' && terms.length > 0)
      inTitle = await allTermed(
        sql,
        searchTerms(typed, 'title').filter(({ not }) => !not),
      );
  }
  return {
    joins: [
      // Counting is a look into an index where nothing of the brief is asked.
      ...(ofBrief(wanted) ? [' JOIN brief b ON b.id = a.brief'] : []),
      ...(mark ? [' JOIN article_glance g ON g.article = a.id'] : []),
    ].join(''),
    where: ['a.trial = 0', ...where],
    values,
    inTitle,
    since,
  };
}
