import { syllable } from 'syllable';
import { wordsOfText } from '../sentence/sentence.ts';

/** How many years of school a text asks of its reader, and by which formula; no formula for other languages. */
export interface ReadingGrade {
  value: number;
  formula: string | null;
}

/**
 * English: Flesch–Kincaid grade level, 0.39 words/sentences + 11.8 syllables/words − 15.59 (Kincaid, Fishburne, Rogers and
 * Chissom 1975). German: first Wiener Sachtextformel, 0.1935 MS + 0.1672 SL + 0.1297 IW − 0.0327 ES − 0.875 with the
 * per cent of words of three and more syllables, the mean length of sentences, the per cent of words of more than six
 * letters, and of words of one syllable (Bamberger and Vanecek 1984).
 */
export function gradeOf(sentences: readonly string[], language: string): ReadingGrade {
  const words = sentences.flatMap((sentence) => wordsOfText(sentence)).filter((word) => /\p{L}/u.test(word));
  const count = Math.max(1, words.length);
  const mean = words.length / Math.max(1, sentences.length);
  const tongue = language.slice(0, 2);
  if (words.length === 0 || (tongue !== 'en' && tongue !== 'de')) return { value: 0, formula: null };
  if (tongue === 'en') {
    const syllables = words.reduce((sum, word) => sum + Math.max(1, syllable(word)), 0);
    return { value: 0.39 * mean + 11.8 * (syllables / count) - 15.59, formula: 'Flesch–Kincaid' };
  }
  const share = (fits: (word: string) => boolean) => (words.filter(fits).length / count) * 100;
  const value =
    0.1935 * share((word) => germanSyllables(word) >= 3) +
    0.1672 * mean +
    0.1297 * share((word) => word.length > 6) -
    0.0327 * share((word) => germanSyllables(word) === 1) -
    0.875;
  return { value, formula: 'first Wiener Sachtextformel' };
}

/** A syllable is a vowel, a doubled one or a diphthong. */
export function germanSyllables(word: string): number {
  return Math.max(1, word.toLowerCase().match(/[aeo]i|[aä]u|eu|ie|aa|ee|oo|[aeiouyäöü]/g)?.length ?? 0);
}
