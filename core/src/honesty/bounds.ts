import { setOf } from './lexicon.ts';
import type { Quantity } from './quantity.ts';
import type { Token } from './token.ts';

const ABOUT = setOf('about around some roughly approximately circa ca close rund etwa ungefähr gegen zirka round gut');
const NEARLY = setOf('nearly almost knapp fast annähernd');
const OVER = setOf('over above exceeding plus über mindestens');
const UNDER = setOf('under below höchstens unter');
/** Words between a word of comparing and its number. */
const BETWEEN = setOf('than als a an just the of to der die das den dem im in ein eine einen einem einer');

const ABOVE = /^(?:more|mehr|longer|länger|higher|höher|later|später|older|älter|heavier|schwerer|larger|größer)$/;
const BELOW =
  /^(?:less|fewer|weniger|shorter|kürzer|lower|niedriger|earlier|früher|younger|jünger|lighter|leichter|smaller|kleiner)$/;

/** 'No more than' is a bound from above; it denies nothing of what is so bounded. */
export const isDeniedBound = (tokens: readonly Token[], at: number): boolean =>
  /^(?:no|not|never|nicht|nie)$/.test(tokens[at]?.lower ?? '') &&
  (ABOVE.test(tokens[at + 1]?.lower ?? '') || BELOW.test(tokens[at + 1]?.lower ?? '')) &&
  /^(?:than|als)$/.test(tokens[at + 2]?.lower ?? '');

/** Whether a number is said exactly, about, or as a bound. */
export function comparing(lowers: readonly string[], at: number, tokens: readonly Token[]): Quantity['says'] {
  for (let place = at - 1; place >= Math.max(0, at - 4); place--) {
    const word = lowers[place]!;
    // 'Some' and 'gut' mean about only right before a number.
    if (word === 'some' || word === 'gut' || word === 'round') return place === at - 1 ? 'about' : 'exactly';
    if (NEARLY.has(word)) return 'nearly';
    if (ABOUT.has(word)) return 'about';
    if (OVER.has(word)) return 'over';
    if (UNDER.has(word)) return 'under';
    const isThan = word === 'than' || word === 'als';
    const denied = isThan && isDeniedBound(tokens, place - 2);
    if (isThan && ABOVE.test(lowers[place - 1] ?? '')) return denied ? 'under' : 'over';
    if (isThan && BELOW.test(lowers[place - 1] ?? '')) return denied ? 'over' : 'under';
    if (!BETWEEN.has(word) && tokens[place]!.kind !== 'sign') return 'exactly';
  }
  return 'exactly';
}
