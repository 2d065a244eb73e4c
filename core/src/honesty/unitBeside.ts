import type { Clause } from './clause.ts';
import { setOf } from './lexicon.ts';
import { PERIOD_OF } from './periods.ts';

const ORDER = setOf(
  'first last next previous second third same whole past coming summer winter spring autumn ersten erste letzten letzte nächsten nächste vorigen vergangenen zweiten ganzen',
);
const AGO = setOf('before earlier ago later previously zuvor davor vorher früher später');

/** What stands beside a unit of time and says which it is: 'the wettest year', 'a year earlier'. */
const beside = (clause: Clause): readonly { word: string; unit: string }[] =>
  clause.once('units beside', () =>
    clause.tokens.flatMap(({ lower }, at) => {
      const unit = PERIOD_OF.get(lower);
      if (unit === undefined) return [];
      const [before, behind] = [clause.tokens[at - 1], clause.tokens[at + 1]];
      const out: { word: string; unit: string }[] = [];
      if (before && (ORDER.has(before.lower) || /[^r]est$/.test(before.lower))) out.push({ word: before.stem, unit });
      if (
        behind &&
        AGO.has(behind.lower) &&
        before?.kind === 'word' &&
        /^(?:an?|the|one|im|eine?[nmr]?|dem|den|der)$/.test(before.lower)
      )
        out.push({ word: 'ago', unit });
      return out;
    }),
  );

/** 'A minute earlier' of what was so a year before, 'the wettest month' of the wettest year. */
export function otherUnitBeside(said: Clause, sources: readonly Clause[]): boolean {
  return beside(said).some(({ word, unit }) => {
    const its = sources.flatMap((held) => beside(held).filter((one) => one.word === word));
    return its.length > 0 && !its.some((one) => one.unit === unit);
  });
}
