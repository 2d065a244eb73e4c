import { contentStems } from '../sentence/sentence.ts';
import { aspectsOf } from './aspects.ts';
import { joined } from './join.ts';
import { evened, likeness, type Vector } from './vector.ts';

/** A phrase to be grouped. */
export interface Groupable {
  phrase: string;
  /** Addresses a search for it gives, the first first; none known is empty. */
  results: readonly string[];
}

/** How alike two phrases of a group are on average. */
export const CLOSENESS = { closely: 0.38, loosely: 0.3 } as const;
export type Closeness = keyof typeof CLOSENESS;

/** The share of results in how alike two are, where results of both are known; the rest is that of words. */
const BY_RESULTS = 0.5;
/** Results from this place on tell of neighbouring subjects. */
const MOST_RESULTS = 10;

/**
 * Groups of phrases that one article can serve, the largest first, each as indexes in their order. Two phrases are as alike
 * as their words (stems weighed by how rare they are in the list, ways of asking as words of their own, letters in threes
 * for what has no word in common) and, where results are known of both, the addresses they share, an address the more the
 * nearer it stands to the top and the fewer phrases it is given for. Groups are joined by average linkage (Sokal and Michener 1958) over pairs that share something.
 * Twenty thousand phrases take two to three seconds.
 */
export function groupPhrases(
  phrases: readonly Groupable[],
  { closeness = 'closely', language = 'en' }: { closeness?: Closeness; language?: string } = {},
): number[][] {
  const words = wordVectors(
    phrases.map(({ phrase }) => phrase),
    language,
  );
  const results = resultVectors(phrases.map(({ results }) => results.slice(0, MOST_RESULTS)));
  return joined(likeness(words, results, BY_RESULTS), CLOSENESS[closeness]);
}

function resultVectors(lists: readonly (readonly string[])[]): Vector[] {
  const counts = new Map<string, number>();
  for (const list of lists) for (const address of new Set(list)) counts.set(address, (counts.get(address) ?? 0) + 1);
  return lists.map((list) => {
    const vector = new Map<string, number>();
    for (const [i, address] of list.entries())
      if (!vector.has(address)) vector.set(address, rareness(counts.get(address)!, lists.length) / (i + 1));
    return evened(vector);
  });
}

/** What a feature that so many of a list hold tells of them: the fewer, the more. */
function rareness(holders: number, of: number): number {
  return Math.log(1 + of / holders);
}

/** Letters in threes of a word that no other phrase holds, so that two spellings of it meet. */
const BY_LETTERS = 0.5;
/** Shorter words are no more alike by their letters than any two. */
const LEAST_LETTERS = 6;

function wordVectors(phrases: readonly string[], language: string): Vector[] {
  const split = phrases.map((phrase) => {
    const { aspects, rest } = aspectsOf(phrase, language);
    return { stems: new Set(contentStems(rest, language)), aspects };
  });
  const counts = new Map<string, number>();
  const count = (feature: string) => counts.set(feature, (counts.get(feature) ?? 0) + 1);
  for (const { stems, aspects } of split) {
    for (const stem of stems) count(stem);
    for (const aspect of aspects) count(`@${aspect}`);
  }
  const weightOf = (feature: string) => rareness(counts.get(feature)!, phrases.length);
  return split.map(({ stems, aspects }) => {
    const vector = new Map<string, number>();
    for (const aspect of aspects) vector.set(`@${aspect}`, weightOf(`@${aspect}`));
    for (const stem of stems) {
      const weight = weightOf(stem);
      if (counts.get(stem)! > 1 || stem.length < LEAST_LETTERS) {
        vector.set(stem, weight);
        continue;
      }
      const threes = Array.from({ length: stem.length - 2 }, (_, i) => `~${stem.slice(i, i + 3)}`);
      vector.set(stem, weight * Math.sqrt(1 - BY_LETTERS));
      for (const three of threes) vector.set(three, weight * Math.sqrt(BY_LETTERS / threes.length));
    }
    return evened(vector);
  });
}

/**
 * The phrase a group is called by: the one searched for most where that is known, else the one most of its words are shared
 * by the others, the shorter of equals.
 * @returns an index into the group
 */
export function headOf(group: readonly { phrase: string; volume: number | null }[], language = 'en'): number {
  const stems = group.map(({ phrase }) => new Set(contentStems(phrase, language)));
  const shared = (i: number) => {
    let met = 0;
    for (const stem of stems[i]!) for (const other of stems) if (other.has(stem)) met++;
    return met / Math.max(1, stems[i]!.size);
  };
  let best = 0;
  for (let i = 1; i < group.length; i++) {
    const [a, b] = [group[i]!, group[best]!];
    const more = (a.volume ?? -1) - (b.volume ?? -1) || shared(i) - shared(best) || b.phrase.length - a.phrase.length;
    if (more > 0) best = i;
  }
  return best;
}
