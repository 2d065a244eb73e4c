import { closedWords } from '../language/closedWords.ts';
import { isNounToo, verbForm } from '../language/wordClasses.ts';
import { remembered } from '../sentence/remembered.ts';
import { contentStems } from '../sentence/sentence.ts';
import type { ArticleDocument } from './block.ts';
import { type ArticleMeasure, type MeasuredSource, measure, onceFor } from './measure.ts';
import { readBlock, readOther } from './reading.ts';

/** Terms that are looked for, at most. */
const MOST_TERMS = 12;
/** A word of this many letters and more may be a term: shorter ones say little by themselves. */
const LEAST_LETTERS = 4;

/** A word of the sources, with what it is known by. */
interface Term {
  words: string;
  stems: readonly string[];
}

/**
 * What the sources of an article speak of most: words of content by in how many passages they stand, then by how often, each
 * in the form that is most common. What only one passage speaks of is no term of the subject, unless it is the only one.
 */
export const sourceTerms = onceFor(gather);

interface Counted {
  passages: number;
  times: number;
  forms: Map<string, number>;
}

function gather(sources: readonly MeasuredSource[], language: string): Term[] {
  const counted = new Map<string, Counted>();
  const own = sources.filter((one) => (one.language ?? language).slice(0, 2) === language.slice(0, 2));
  for (const source of own) {
    const here = new Set<string>();
    for (const word of readOther(source, language).words) {
      const lower = word.toLowerCase();
      const stem = termStem(lower, language);
      if (stem === null) continue;
      const one = counted.get(stem) ?? { passages: 0, times: 0, forms: new Map<string, number>() };
      one.times++;
      if (!here.has(stem)) one.passages++;
      here.add(stem);
      // In German a capital is part of the word.
      const form = language.startsWith('de') ? word : lower;
      one.forms.set(form, (one.forms.get(form) ?? 0) + 1);
      counted.set(stem, one);
    }
  }
  const least = own.length < 2 ? 1 : 2;
  return (
    [...counted]
      .filter(([, { passages, times }]) => passages >= least && times >= 3)
      .sort(([a, x], [b, y]) => y.passages - x.passages || y.times - x.times || (a < b ? -1 : 1))
      .map(([stem, { forms }]) => ({
        words: [...forms].sort(([a, n], [b, m]) => m - n || (a < b ? -1 : 1))[0]![0],
        stems: [stem],
      }))
      // German writes its nouns with a capital; what begins a sentence has one too, but not most of the time.
      .filter(({ words }) => !language.startsWith('de') || words !== words.toLowerCase())
  );
}

/** What a word in small letters is known by; nothing where it carries no subject. */
const termStem = remembered((lower, language): string | null => {
  if (lower.length < LEAST_LETTERS || /\d/.test(lower) || isVerb(lower, language)) return null;
  return closedWords(language.slice(0, 2))?.has(lower) ? null : (contentStems(lower, language)[0] ?? null);
});

/** A common verb of English: it says what is done, not what is spoken of. */
function isVerb(lower: string, language: string): boolean {
  if (!language.startsWith('en') || isNounToo(lower)) return false;
  const form = verbForm(lower);
  return form === 'base' || form === 'third';
}

/**
 * Which terms of its subject an article speaks of: its further key phrases, and what its sources speak of most. Words of the
 * key phrase itself are measured by their own measure.
 */
export function termsMeasure(
  { keyPhrase, keywords, body, language }: Pick<ArticleDocument, 'keyPhrase' | 'keywords' | 'body' | 'language'>,
  sources: readonly MeasuredSource[],
): ArticleMeasure[] {
  if (closedWords(language.slice(0, 2)) === null) return [];
  const own = new Set(contentStems(keyPhrase, language));
  const given = keywords
    .map((words): Term => ({ words, stems: contentStems(words, language) }))
    .filter(({ stems }) => stems.some((stem) => !own.has(stem)));
  const taken = new Set(given.flatMap(({ stems }) => stems));
  const found = sourceTerms(sources, language).filter(({ stems: [stem] }) => !own.has(stem!) && !taken.has(stem!));
  const terms = [...given, ...found].slice(0, MOST_TERMS);
  if (terms.length === 0) return [];
  const blocks = body.map((block) => readBlock(block, language).stems);
  const lacking = terms.filter(({ stems }) => !stems.every((stem) => blocks.some((one) => one.has(stem))));
  const said = terms.length - lacking.length;
  const says = lacking.length === 0 ? 'it speaks of all of them' : `not spoken of: ${namesOf(lacking)}`;
  return [measure('Related terms', said, [Math.ceil(terms.length / 2), null], `of ${terms.length}`, says)];
}

const MOST_NAMED = 4;

function namesOf(terms: readonly Term[]): string {
  const names = terms.map(({ words }) => `‘${words}’`);
  const last = names.length > MOST_NAMED ? `${names.length - MOST_NAMED} more` : names.pop()!;
  const first = names.slice(0, MOST_NAMED);
  return first.length === 0 ? last : `${first.join(', ')} and ${last}`;
}
