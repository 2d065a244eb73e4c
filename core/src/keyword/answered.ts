import { contentStems } from '../sentence/sentence.ts';

/** An article as far as it tells what it answers: its title, and the subject it was made from. */
export interface Answering {
  title: string;
  subject: string;
}

/** A word alone names a field and no question. */
const LEAST_STEMS = 2;

/**
 * Makes the question 'which article answers this phrase?': one whose title and subject hold every word of the phrase that
 * carries it, the tersest of them. Gives the article's index, or null. Articles are looked up by the phrase's rarest word.
 */
export function answers(articles: readonly Answering[], language = 'en'): (phrase: string) => number | null {
  const stems = articles.map(({ title, subject }) => new Set(contentStems(`${title} ${subject}`, language)));
  const holders = new Map<string, number[]>();
  for (const [i, set] of stems.entries())
    for (const stem of set) {
      const list = holders.get(stem);
      if (list) list.push(i);
      else holders.set(stem, [i]);
    }
  return (phrase) => {
    const wanted = [...new Set(contentStems(phrase, language))];
    if (wanted.length < LEAST_STEMS) return null;
    const lists = wanted.map((stem) => holders.get(stem) ?? []);
    const rarest = lists.reduce((least, list) => (list.length < least.length ? list : least));
    let best: number | null = null;
    for (const i of rarest) {
      if (!wanted.every((stem) => stems[i]!.has(stem))) continue;
      if (best === null || stems[i]!.size < stems[best]!.size) best = i;
    }
    return best;
  };
}
