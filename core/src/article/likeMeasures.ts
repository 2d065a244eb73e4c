import { KnownRuns, wordsMet } from '../passage/likeness.ts';
import type { ArticleDocument } from './block.ts';
import { type ArticleMeasure, type MeasuredBeside, type MeasuredSource, measure, onceFor } from './measure.ts';
import { isOwnWords } from './ownWords.ts';
import { type ReadText, readBlock, readOther } from './reading.ts';

/** Runs of the same texts are gathered once: an article is measured at every word that is typed. */
const runsOf = onceFor(
  (texts: readonly { text: string }[], language) => new KnownRuns(texts.map((one) => readOther(one, language).folded)),
);

/** How much of a text stands among runs, for as long as both are there. */
const met = new WeakMap<KnownRuns, WeakMap<ReadText, ReturnType<typeof wordsMet>>>();

function metIn(known: KnownRuns, read: ReadText): ReturnType<typeof wordsMet> {
  const own = met.get(known) ?? new WeakMap<ReadText, ReturnType<typeof wordsMet>>();
  met.set(known, own);
  const found = own.get(read) ?? wordsMet(read.folded, known);
  own.set(read, found);
  return found;
}

/**
 * How much of an article stands in its sources, and in other articles of ours, word for word: of a hundred words those that
 * are part of five in a row that stand there too. What is quoted on purpose does not count.
 */
export function likeMeasures(
  document: Pick<ArticleDocument, 'body' | 'language'>,
  sources: readonly MeasuredSource[],
  { own, most }: Pick<MeasuredBeside, 'own' | 'most'>,
): ArticleMeasure[] {
  return [
    ...(sources.length === 0 ? [] : [like('Likeness to the sources', document, sources, most.sources, 'in them')]),
    ...(own.length === 0 ? [] : [like('Likeness to our articles', document, own, most.own, `in ${namesOf(own)}`)]),
  ];
}

function like(
  name: string,
  { body, language }: Pick<ArticleDocument, 'body' | 'language'>,
  texts: readonly { text: string }[],
  most: number | null,
  where: string,
): ArticleMeasure {
  const known = runsOf(texts, language);
  const blocks = body
    .filter(isOwnWords)
    .map((block) => ({ id: block.id, ...metIn(known, readBlock(block, language)) }));
  const words = blocks.reduce((sum, one) => sum + one.words, 0);
  const there = blocks.reduce((sum, one) => sum + one.met, 0);
  const worst = blocks.reduce<(typeof blocks)[number] | null>(
    (before, one) => (one.met > (before?.met ?? 0) ? one : before),
    null,
  );
  const says =
    there === 0
      ? 'no five words in a row stand there'
      : `${there} of ${words} words stand ${where}, five in a row and more`;
  return measure(name, words === 0 ? 0 : (there / words) * 100, [null, most], '%', says, worst?.id ?? null);
}

function namesOf([first, ...rest]: readonly { title: string }[]): string {
  const name = `‘${first?.title ?? ''}’`;
  return rest.length === 0 ? name : `${name} and ${rest.length} more`;
}
