import { syllable } from 'syllable';
import { wordsOfText } from '../sentence/sentence.ts';

/** How many years of school a text asks of its reader, and by which formula; no formula for other languages. */
export interface ReadingGrade {
  value: number;
  formula: string | null;
}

/** What the formulas count in a sentence. */
export interface GradeCounts {
  words: number;
  syllables: number;
  /** Words of more than six letters. */
  long: number;
  /** Words of three and more syllables. */
  many: number;
  /** Words of one syllable. */
  single: number;
}

/** Syllables of words that were counted before: a text says most of its words again. */
const known = { en: new Map<string, number>(), de: new Map<string, number>() };
const MOST_KNOWN = 20_000;

function syllablesOf(word: string, tongue: 'en' | 'de'): number {
  const before = known[tongue].get(word);
  if (before !== undefined) return before;
  const n = tongue === 'en' ? Math.max(1, syllable(word)) : germanSyllables(word);
  if (known[tongue].size >= MOST_KNOWN) known[tongue].clear();
  known[tongue].set(word, n);
  return n;
}

/** Whether a word has a letter; nearly all begin with a plain one. */
function hasLetter(word: string): boolean {
  const first = word.charCodeAt(0) | 0x20;
  return (first >= 0x61 && first <= 0x7a) || /\p{L}/u.test(word);
}

/** The counts of one sentence; figures are no words. */
export function gradeCounts(sentence: string, language: string): GradeCounts {
  return gradeCountsOf(wordsOfText(sentence, language), language);
}

/** The same of a sentence that is cut into its words already. */
export function gradeCountsOf(all: readonly string[], language: string): GradeCounts {
  const words = all.filter(hasLetter);
  const counts: GradeCounts = { words: words.length, syllables: 0, long: 0, many: 0, single: 0 };
  const tongue = language.slice(0, 2);
  if (tongue !== 'en' && tongue !== 'de') return counts;
  for (const word of words) {
    const n = syllablesOf(word, tongue);
    counts.syllables += n;
    if (word.length > 6) counts.long++;
    if (n >= 3) counts.many++;
    if (n === 1) counts.single++;
  }
  return counts;
}

/**
 * English: Flesch–Kincaid grade level, 0.39 words/sentences + 11.8 syllables/words − 15.59 (Kincaid, Fishburne, Rogers and
 * Chissom 1975). German: first Wiener Sachtextformel, 0.1935 MS + 0.1672 SL + 0.1297 IW − 0.0327 ES − 0.875 with the
 * per cent of words of three and more syllables, the mean length of sentences, the per cent of words of more than six
 * letters, and of words of one syllable (Bamberger and Vanecek 1984).
 */
export function gradeOf(sentences: readonly GradeCounts[], language: string): ReadingGrade {
  const sum = (of: keyof GradeCounts) => sentences.reduce((all, one) => all + one[of], 0);
  const words = sum('words');
  const tongue = language.slice(0, 2);
  if (words === 0 || (tongue !== 'en' && tongue !== 'de')) return { value: 0, formula: null };
  const mean = words / sentences.length;
  if (tongue === 'en')
    return { value: 0.39 * mean + 11.8 * (sum('syllables') / words) - 15.59, formula: 'Flesch–Kincaid' };
  const share = (of: keyof GradeCounts) => (sum(of) / words) * 100;
  const value = 0.1935 * share('many') + 0.1672 * mean + 0.1297 * share('long') - 0.0327 * share('single') - 0.875;
  return { value, formula: 'first Wiener Sachtextformel' };
}

/** A syllable is a vowel, a doubled one or a diphthong. */
export function germanSyllables(word: string): number {
  return Math.max(1, word.toLowerCase().match(/[aeo]i|[aä]u|eu|ie|aa|ee|oo|[aeiouyäöü]/g)?.length ?? 0);
}
