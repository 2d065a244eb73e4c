import { closedWords } from '../language/closedWords.ts';
import { sentencesOf, wordsOfText } from '../sentence/sentence.ts';

/** How often one hand uses each of some marks and words, learnt from several texts. */
export interface Hand {
  language: string;
  /** Words the texts have together. */
  words: number;
  marks: { mark: string; mean: number; deviation: number }[];
  /** How far each of the texts is from the others. */
  own: number[];
}

/** Words that are counted: the closed classes where they are known, else the commonest of the texts. */
const MOST_WORDS = 120;
const SIGNS = [',', ';', ':', '(', '–', '—', '!', '?', '"', '“'] as const;
/** A mark that stands less often than this in all texts together tells nothing. */
const LEAST_TIMES = 3;

interface Counted {
  words: number;
  times: Map<string, number>;
}

function countedIn(text: string, language: string): Counted {
  const words = wordsOfText(text.toLowerCase().replaceAll('’', "'"), language);
  const times = new Map<string, number>();
  const add = (mark: string) => times.set(mark, (times.get(mark) ?? 0) + 1);
  for (const word of words) add(word);
  for (const [sign] of text.matchAll(/[,;:(–—!?"“]/g)) add(sign);
  for (const one of sentencesOf(text, language)) {
    const first = /[\p{L}\p{N}]+/u.exec(one)?.[0];
    if (first) add(`^${first.toLowerCase()}`);
    add('.sentence');
  }
  for (const word of words) if (word.includes("'")) add(".'");
  return { words: words.length, times };
}

/** The marks that are looked at: words and signs that carry manner, not matter. */
function marksOf(texts: readonly Counted[], language: string): string[] {
  const all = new Map<string, number>();
  for (const { times } of texts) for (const [mark, n] of times) all.set(mark, (all.get(mark) ?? 0) + n);
  const closed = closedWords(language.slice(0, 2));
  const carries = (mark: string): boolean => {
    if (mark.startsWith('.') || (SIGNS as readonly string[]).includes(mark)) return true;
    const word = mark.replace(/^\^/, '');
    return closed === null || closed.has(word) || word.includes("'");
  };
  return [...all]
    .filter(([mark, n]) => n >= LEAST_TIMES && carries(mark))
    .sort(([a, n], [b, m]) => m - n || (a < b ? -1 : 1))
    .slice(0, MOST_WORDS)
    .map(([mark]) => mark);
}

/**
 * Learns a hand from texts of it. The marks are the commonest function words and signs, as in Burrows’ Delta (J. Burrows,
 * ‘Delta’: a measure of stylistic difference and a guide to likely authorship, 2002); as there is only one hand to learn
 * from, each is measured by its own spread, which is that between the texts and that of counting so few words.
 */
export function handOf(texts: readonly string[], language: string): Hand {
  const counted = texts.map((text) => countedIn(text, language));
  const marks = marksOf(counted, language);
  const words = counted.reduce((sum, one) => sum + one.words, 0);
  const sums = marks.map((mark) => sumsOf(counted, mark));
  /** What is learnt from all texts, or from all but one: sums are taken from once, not gone through for each text. */
  const learnt = (without: Counted | null): Hand['marks'] =>
    marks.map((mark, i) => {
      const { times, rates, squares } = sums[i]!;
      const left = without ? rate(without, mark) : 0;
      const many = counted.length - (without ? 1 : 0);
      // A mark that never stood may stand one day: half a time is added.
      const mean =
        (times - (without?.times.get(mark) ?? 0) + 0.5) / Math.max(1, words - (without ? without.words : 0) + 1);
      const spread = squares - left ** 2 - 2 * mean * (rates - left) + many * mean ** 2;
      return { mark, mean, deviation: Math.sqrt(Math.max(0, spread) / Math.max(1, many - 1)) };
    });
  const own = counted.map((one) => distance(learnt(one), one));
  return { language, words, marks: learnt(null), own };
}

/** How often a mark stands in texts together, the sum of its rates in each, and that of their squares. */
function sumsOf(counted: readonly Counted[], mark: string): { times: number; rates: number; squares: number } {
  let [times, rates, squares] = [0, 0, 0];
  for (const one of counted) {
    const own = rate(one, mark);
    times += one.times.get(mark) ?? 0;
    rates += own;
    squares += own ** 2;
  }
  return { times, rates, squares };
}

const rate = ({ words, times }: Counted, mark: string): number => (times.get(mark) ?? 0) / Math.max(1, words);

function distance(marks: Hand['marks'], text: Counted): number {
  if (marks.length === 0) return 0;
  const sum = marks.reduce((all, { mark, mean, deviation }) => {
    // Counting so few words alone makes it differ by so much (the spread of a binomial share).
    const counting = Math.sqrt((mean * (1 - mean)) / Math.max(1, text.words));
    return all + Math.abs(rate(text, mark) - mean) / Math.hypot(counting, deviation / 2);
  }, 0);
  return sum / marks.length;
}

/** How far a text is from a hand: the mean of its deviations, mark by mark. A text of the hand itself is near 1. */
export function handDistance(hand: Hand, text: string): number {
  return distance(hand.marks, countedIn(text, hand.language));
}

/** Whether a text reads as if of the hand: no farther from it than the farthest of its own texts, and a little. */
export function isOfHand(hand: Hand, text: string): boolean {
  return handDistance(hand, text) <= Math.max(1, ...hand.own) * 1.1;
}
