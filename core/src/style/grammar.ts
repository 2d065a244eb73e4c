import { closedWords } from '../language/closedWords.ts';

/** How a sentence begins. */
export type Opening = 'an order' | 'a figure' | 'a question' | 'other';

const list = (words: string): ReadonlySet<string> => new Set(words.split(' '));

/** Words that say who speaks to whom, by language. */
export const PERSON_WORDS: Readonly<Record<string, Record<'I' | 'we' | 'you', ReadonlySet<string>>>> = {
  en: {
    I: list('i me my mine myself'),
    we: list('we us our ours ourselves'),
    you: list('you your yours yourself yourselves'),
  },
  de: {
    I: list('ich mich mir mein meine meinen meinem meiner meines'),
    we: list('wir uns unser unsere unseren unserem unserer unseres'),
    you: list('du dich dir dein deine deinen deinem deiner deines ihr euch euer eure euren eurem'),
  },
};

/** What follows the verb of an order: what is done to, or how. */
const AFTER: Readonly<Record<string, ReadonlySet<string>>> = {
  en: list(
    'a an the it them this that these those your its their all each every any some both one two three four five six more only first up down off out in on over with for into about at from to until by well again not and or',
  ),
  de: list(
    'sie den die das dem der ein eine einen einem es ihn ihnen alle jede jeden dich dir ihre deine deinen ihren etwas nicht nur zuerst auch mit in auf für über und oder nie immer',
  ),
};
const ORDERS: Readonly<Record<string, RegExp>> = {
  en: /^(?:do not|don['’]t|never|always|let['’]s|please)\s+\p{Ll}/iu,
  de: /^(?:bitte|niemals|nie)\s+\p{Ll}/iu,
};

/**
 * How a sentence begins. That it is an order is reckoned from form alone: a word of no closed class, followed by what an
 * order is followed by ("Press the leaves", "Drücken Sie"). A plural noun before "and" may be taken for one.
 */
export function openingOf(sentence: string, words: readonly string[], tongue: string): Opening {
  if (/[?？؟]["”’'»)\]]{0,3}$/.test(sentence)) return 'a question';
  if (/^\W*\d/.test(sentence)) return 'a figure';
  const [first = '', second = ''] = words.slice(0, 2).map((word) => word.toLowerCase().split(/['’]/, 1)[0]!);
  if (ORDERS[tongue]?.test(sentence)) return 'an order';
  const closed = closedWords(tongue);
  if (!closed || closed.has(first) || first === '') return 'other';
  return AFTER[tongue]!.has(second) ? 'an order' : 'other';
}
