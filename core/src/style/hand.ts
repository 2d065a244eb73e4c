import { sentencesOf, wordsOfText } from '../sentence/sentence.ts';
import { closedWords } from './grammar.ts';

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
  const learnt = (from: readonly Counted[]): Hand['marks'] => {
    const words = from.reduce((sum, one) => sum + one.words, 0);
    return marks.map((mark) => {
      const rates = from.map((one) => rate(one, mark));
      // A mark that never stood may stand one day: half a time is added.
      const mean = (from.reduce((sum, one) => sum + (one.times.get(mark) ?? 0), 0) + 0.5) / Math.max(1, words + 1);
      const spread = rates.reduce((sum, one) => sum + (one - mean) ** 2, 0) / Math.max(1, rates.length - 1);
      return { mark, mean, deviation: Math.sqrt(spread) };
    });
  };
  const own = counted.map((one, i) => distance(learnt(counted.filter((_, j) => j !== i)), one));
  return { language, words: counted.reduce((sum, one) => sum + one.words, 0), marks: learnt(counted), own };
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
