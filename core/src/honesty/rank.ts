import type { Clause } from './clause.ts';
import { setOf } from './lexicon.ts';
import { ordinalOf } from './moments.ts';

const CAME = setOf('came come finished finish placed ranked was were is took take won');
const PLACE = setOf('place prize rank position');
/** 'Zweiter', 'Dritte': whoever came so is written with a capital. */
const GERMAN_PLACE = /^(?:erste|zweite|dritte|vierte|fünfte|sechste|siebte|achte|neunte|zehnte)r?$/;

/** The place somebody came in: 'came second', 'the third prize', 'wurde Zweiter'. */
export function rankOf(clause: Clause): { place: number; at: number } | null {
  return clause.once('rank', () => {
    const { tokens, language } = clause;
    for (const [at, { lower, capital }] of tokens.entries()) {
      const place = ordinalOf(lower, language);
      if (place === null) continue;
      const behind = tokens[at + 1];
      const is =
        language === 'de'
          ? capital && at > 0 && GERMAN_PLACE.test(lower) && behind?.capital !== true
          : PLACE.has(behind?.lower ?? '') || (CAME.has(tokens[at - 1]?.lower ?? '') && behind?.content !== true);
      if (is) return { place, at };
    }
    return null;
  });
}
