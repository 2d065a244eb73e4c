import { fold, sentencesOf, wordsOfText } from '../sentence/sentence.ts';
import { hashOf } from './sketch.ts';

/** Words in a row that tell copied text from text on the same subject. */
const RUN = 5;

/**
 * Share of a text, 0 to 1, that stands in other texts word for word: of its words, those that are part of a run of five
 * words that one of the others has too.
 */
export function likeness(text: string, others: readonly string[], language = 'en'): number {
  const cut = (one: string) => wordsOfText(fold(one), language);
  const { words, met } = wordsMet(cut(text), new KnownRuns(others.map(cut)));
  return words < RUN ? 0 : met / words;
}

/** Above all numbers of words and of what is made of them, so that two of them make one number. */
const BASE = 2 ** 26;

/** All runs of five words of texts: words by their numbers, these in pairs, these in fours, and one word behind them. */
export class KnownRuns {
  private readonly words = new Map<string, number>();
  private readonly pairs = new Map<number, number>();
  private readonly fours = new Map<number, number>();
  private readonly runs = new Set<number>();

  /** @param texts each as its words, folded */
  constructor(texts: readonly (readonly string[])[]) {
    for (const text of texts) {
      const words = text.map((word) => numberIn(this.words, word));
      for (let at = 0; at + RUN <= words.length; at++) {
        const [a, b, c, d, e] = [words[at]!, words[at + 1]!, words[at + 2]!, words[at + 3]!, words[at + 4]!];
        const four = numberIn(this.pairs, a * BASE + b) * BASE + numberIn(this.pairs, c * BASE + d);
        this.runs.add(numberIn(this.fours, four) * BASE + e);
      }
    }
  }

  /** At which words of a text, given folded, a run begins that is one of these. */
  *metIn(words: readonly string[]): Generator<number> {
    const all = words.map((word) => this.words.get(word));
    const pairs = all.map((word, at) => pairOf(this.pairs, word, all[at + 1]));
    for (let at = 0; at + RUN <= all.length; at++) {
      const four = pairOf(this.fours, pairs[at], pairs[at + 2]);
      const last = all[at + 4];
      if (four !== undefined && last !== undefined && this.runs.has(four * BASE + last)) yield at;
    }
  }
}

function numberIn<K>(known: Map<K, number>, key: K): number {
  const before = known.get(key);
  if (before !== undefined) return before;
  known.set(key, known.size);
  return known.size - 1;
}

const pairOf = (
  known: ReadonlyMap<number, number>,
  a: number | undefined,
  b: number | undefined,
): number | undefined => (a === undefined || b === undefined ? undefined : known.get(a * BASE + b));

/** How many words a text has, given as its words folded, and how many of them are part of a run that is known. */
export function wordsMet(words: readonly string[], known: KnownRuns): { words: number; met: number } {
  let met = 0;
  // Up to where words are counted as met.
  let end = 0;
  for (const at of known.metIn(words)) {
    met += at + RUN - Math.max(at, end);
    end = at + RUN;
  }
  return { words: words.length, met };
}

function runsOf(words: readonly string[]): string[] {
  const out: string[] = [];
  for (let at = 0; at + RUN <= words.length; at++)
    out.push(`${words[at]} ${words[at + 1]} ${words[at + 2]} ${words[at + 3]} ${words[at + 4]}`);
  return out;
}

/** Of all runs of a text one in so many is kept; a stretch of a few sentences in common shows in some of them. */
const ONE_IN = 8;

/**
 * Numbers of runs of five words by which texts that share whole stretches are found among very many: those that a fixed
 * share of all numbers divides (0 mod p; Manber, ‘Finding similar files in a large file system’, 1994).
 */
export function runNumbers(text: string, language = 'en'): number[] {
  const numbers = new Set(runsOf(wordsOfText(fold(text), language)).map((run) => hashOf(run) >>> 0));
  return [...numbers].filter((one) => one % ONE_IN === 0);
}

/** A sentence, and the one of another text that it has most words in a row with. */
export interface Alike {
  here: string;
  there: string;
  /** Which of the other texts. */
  of: number;
  /** How many words of it stand there too, in runs of five and more. */
  words: number;
}

/** The sentences of a text that others have too, whole or in part, the most alike first. */
export function alikeSentences(text: string, others: readonly string[], language = 'en', most = 5): Alike[] {
  const cut = (one: string) => wordsOfText(fold(one), language);
  const known = new Map<string, { of: number; there: string }[]>();
  others.forEach((other, of) => {
    for (const there of sentencesOf(other, language))
      for (const run of new Set(runsOf(cut(there)))) known.set(run, [...(known.get(run) ?? []), { of, there }]);
  });
  const found = sentencesOf(text, language).flatMap((here): Alike[] => {
    const met = new Map<string, { of: number; there: string; at: Set<number> }>();
    runsOf(cut(here)).forEach((run, at) => {
      for (const { of, there } of known.get(run) ?? []) {
        const key = `${of} ${there}`;
        const one = met.get(key) ?? { of, there, at: new Set<number>() };
        for (let i = 0; i < RUN; i++) one.at.add(at + i);
        met.set(key, one);
      }
    });
    const [best] = [...met.values()].sort((a, b) => b.at.size - a.at.size);
    return best ? [{ here, there: best.there, of: best.of, words: best.at.size }] : [];
  });
  return found.sort((a, b) => b.words - a.words).slice(0, most);
}
