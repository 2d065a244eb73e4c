import { fold } from '../sentence/sentence.ts';

/** Words that tell a language, folded; none of them is common in another of these. */
const TELLING: Record<string, readonly string[]> = {
  en: 'the and of to is it that you was for are with this have they not but what be at'.split(' '),
  de: 'der die das und ist nicht ein eine ich sie es mit auf den dem im auch sich wie wenn werden'.split(' '),
  fr: 'le les des est et une dans pour pas que qui sur avec vous nous mais ce cette sont au'.split(' '),
  es: 'el los las es y una para no que con por como pero del al lo mas este esta son'.split(' '),
};

/** How many different small words of a language a text must have to be in it. */
const LEAST_WORDS = 2;

/**
 * The language of a text by its small words, for the browser, where the tables of a library would weigh more than the page; null when it is too short or like none of English, German, French, Spanish.
 */
export function languageOf(text: string): string | null {
  const words = fold(text.slice(0, 20_000)).match(/\p{L}+/gu) ?? [];
  if (words.length < 5) return null;
  const scores = Object.entries(TELLING).map(([language, telling]) => {
    const set = new Set(telling);
    const hits = words.filter((word) => set.has(word));
    // One word tells nothing: ‘no’ is English and Spanish, ‘die’ is English and German.
    return { language, share: new Set(hits).size < LEAST_WORDS ? 0 : hits.length / words.length };
  });
  scores.sort((a, b) => b.share - a.share);
  const [best, second] = scores;
  return best!.share >= 0.08 && best!.share > second!.share * 1.3 ? best!.language : null;
}
