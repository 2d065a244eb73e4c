import { choicesFrom, countWords, sentencesOf } from '../words/language.ts';
import { recognised } from './phrasings.ts';
import type { ReadRequest } from './request.ts';
import { rewrite, WORDING_ONE, WORDING_TWO } from './rewrite.ts';

/**
 * Numbered texts in other words: a statement the model knows is said in another way it knows; of anything else only fillers
 * go and some words change, and it says so by staying alike.
 */
export function otherWords({ texts, language, seed, put }: ReadRequest): { n: number; text: string }[] {
  const chance = choicesFrom(`${seed}other words`);
  const manner = { person: '', language, wording: [...WORDING_ONE, ...WORDING_TWO], turns: 0, contracts: false };
  return texts.map(({ n, text }) => {
    // Tags stand around words: what holds one is left as it is built.
    if (/<\/?\d+>/.test(text)) return { n, text };
    const said = recognised(text).flatMap((part) => {
      if (typeof part !== 'string') return part.ways > 0 ? [put(part)] : [part.text];
      return sentencesOf(part, language).map((sentence) =>
        countWords(sentence) < 4 ? sentence : ended(rewrite(sentence.replace(/[.]$/, ''), manner, chance), sentence),
      );
    });
    return { n, text: said.join(' ').trim() || text };
  });
}

const ended = (text: string, like: string): string =>
  /[.!?]$/.test(text) ? text : `${text}${/[.!?]$/.exec(like)?.[0] ?? ''}`;
