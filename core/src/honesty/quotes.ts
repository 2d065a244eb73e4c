import { remembered } from '../sentence/remembered.ts';
import { fold, wordsOfText } from '../sentence/sentence.ts';
import { stemOf } from './token.ts';

/** What stands between quotation marks, whichever these are; a word or two are a name or a doubt, not what somebody said. */
const QUOTED = /[“„»«"]([^“”„»«"]{4,600})[”“«»"]/g;
const LEAST_WORDS = 3;
/** What a writer put in or left out, and says so. */
const BREAK = /\[[^[\]]{0,200}\]|…|\.{3}/;

export interface Quote {
  text: string;
  start: number;
  end: number;
}

export function quotesOf(text: string, language: string): Quote[] {
  return [...text.slice(0, 100_000).matchAll(QUOTED)]
    .filter((found) => wordsOfText(found[1]!, language).length >= LEAST_WORDS)
    .map((found) => ({ text: found[1]!.trim(), start: found.index, end: found.index + found[0].length }));
}

/** Texts whose words are remembered: of an article that is looked at, quotations are held against the same few. */
const MOST_TEXTS = 200;

/** Words by their stems: a word that is bent to its sentence is still the word that was said. */
const flat = remembered(
  (text, language) =>
    ` ${wordsOfText(fold(text).replace(/[’‘]/g, "'"), language)
      .map((word) => stemOf(word, language))
      .join(' ')} `,
  MOST_TEXTS,
);

/** Whether a source has these words in this order; what is left out by … may stand between. */
export function quoteHeld(quote: string, sources: readonly string[], language: string): boolean {
  const parts = quote
    .split(BREAK)
    .map((part) => flat(part, language))
    .filter((part) => part.trim() !== '');
  return sources.some((source) => {
    const held = flat(source, language);
    let from = 0;
    return parts.every((part) => {
      const at = held.indexOf(part, from);
      from = at + 1;
      return at !== -1;
    });
  });
}
