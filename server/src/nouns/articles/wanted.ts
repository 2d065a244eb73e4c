import type { ArticlesWanted } from '@grivo/contract';
import { LISTED_MEASURES, measureBits, searchTerms } from '@grivo/core';
import type { Sql } from '../../ground/store/database.ts';
import { ofLabel } from '../labels/repository.ts';
import { allOf, type Condition, parted, type Said, saidOf, TEXTS } from './said.ts';
import { numbersSaying } from './wordIndex.ts';

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
  /** What must be said besides. */
  said: Said[];
  /** That the title says all that must be said. */
  inTitle: Said[];
  /** Desk clock; of those that are out, only the ones since then; null for all. */
  since: number | null;
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
 * The conditions of a list, what must be said apart.
 * @param since desk clock; of those that are out, only the ones since then. What is not out is there all the same.
 */
export async function chosen(sql: Sql, wanted: ArticlesWanted, since: number | null = null): Promise<Chosen> {
  const { where, values } = inStanding(wanted.standing);
  const and = (condition: string, ...parameters: unknown[]) => {
    where.push(condition);
    values.push(...parameters);
  };
  const { blog, pipeline, source, cost, label, language, mark, q, title } = wanted;
  if (blog)
    and(
      '(a.blog = ? OR EXISTS (SELECT 1 FROM publication o WHERE o.article = a.id AND o.blog = ?) OR EXISTS (SELECT 1 FROM placement o WHERE o.article = a.id AND o.blog = ?))',
      blog,
      blog,
      blog,
    );
  if (pipeline) and('b.pipeline = ?', pipeline);
  if (source)
    and('a.brief IN (SELECT bi.brief FROM brief_item bi JOIN item i ON i.id = bi.item WHERE i.source = ?)', source);
  if (cost) and('g.micros >= ?', cost);
  if (label) and(ofLabel({ pipeline: 'b.pipeline', blog: 'a.blog', article: 'a.id' }), label, label, label);
  if (language) and('a.language = ?', language);
  if (since !== null)
    and(
      `(a.standing NOT IN ('out', 'withdrawn') OR (SELECT o.out_desk FROM publication o WHERE o.id = ${SHOWN_PUBLICATION}) >= ?)`,
      since,
    );
  if (mark) and('(g.marks & ?) <> 0', measureBits(mark === 'any' ? LISTED_MEASURES : [mark]));
  const terms = [...searchTerms(q ?? ''), ...searchTerms(title ?? '', 'title')];
  const said = await saidOf(sql, terms);
  // Something was typed of which nothing can be looked for: no article has it.
  if (terms.length === 0 && (q ?? title ?? '').trim() !== '') and('FALSE');
  const inTitle = await saidOf(
    sql,
    searchTerms(q ?? '', 'title').filter(({ not }) => !not),
  );
  return {
    joins: [
      // Counting is a look into an index where nothing of the brief is asked.
      ...(ofBrief(wanted) ? [' JOIN brief b ON b.id = a.brief'] : []),
      ...(mark || cost ? [' JOIN article_glance g ON g.article = a.id'] : []),
      ...([...said, ...inTitle].some(({ saying }) => saying === null) ? [TEXTS] : []),
    ].join(''),
    where: ['a.trial = 0', ...where],
    values,
    said,
    inTitle,
    since,
  };
}

/** Articles that are told by their numbers. */
const MOST_LISTED = 4_000;

/**
 * What must be said as a condition. Where it leads to few articles they are named; where to many, each article that is met is
 * asked, and enough of them soon fit.
 */
async function listed(sql: Sql, said: readonly Said[]): Promise<Condition> {
  const along = parted(said);
  if (!along) return { text: 'FALSE', values: [] };
  const numbers: number[] = [];
  for await (const some of numbersSaying(sql, along.sayings, null, MOST_LISTED + 1)) {
    numbers.push(...some);
    if (numbers.length > MOST_LISTED) return allOf(said);
  }
  return numbers.length === 0
    ? { text: 'FALSE', values: [] }
    : allOf([{ text: 'a.n IN (?)', values: [numbers] }, ...along.rest]);
}

/** The conditions of a list, with what must be said among them. */
export async function chosenSaying(sql: Sql, wanted: ArticlesWanted, since: number | null = null): Promise<Chosen> {
  const of = await chosen(sql, wanted, since);
  if (of.said.length === 0) return of;
  const { text, values } = await listed(sql, of.said);
  return { ...of, where: [...of.where, text], values: [...of.values, ...values] };
}
