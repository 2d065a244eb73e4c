import type { Clause } from './clause.ts';
import { setOf } from './lexicon.ts';
import { type Moment, momentFits } from './moments.ts';
import { quantityFits } from './quantity.ts';

const BEFORE = setOf('before until till vor bis');
const AFTER = setOf('after from since nach ab seit');

/** Which side of a date or a time a clause speaks of; null where it stands for itself. */
function sideOf({ tokens }: Clause, { from }: Moment): 'before' | 'after' | null {
  const before = tokens[from - 1]?.lower ?? '';
  return BEFORE.has(before) ? 'before' : AFTER.has(before) ? 'after' : null;
}

/** 'Before 6 pm a ticket is 4 euros' of one that is 4 euros after 6 pm: all is as there but the side of the time. */
export function otherSideOfTime(said: Clause, sources: readonly Clause[]): boolean {
  return said.facts.moments.some((moment) => {
    const mine = sideOf(said, moment);
    // Of years a source may tell both sides in other words: 'welded since 1970', 'soldered before 1970'.
    if (mine === null || moment.clock === undefined) return false;
    const its = sources.flatMap((held) =>
      held.denies === said.denies && speakOfTheSame(said, held)
        ? held.facts.moments.flatMap((own) => (momentFits(moment, own) ? (sideOf(held, own) ?? []) : []))
        : [],
    );
    // Where another clause tells it of this side, or denies it, both may be so.
    return (
      its.length > 0 && !its.includes(mine) && !sources.some((held) => held.denies !== said.denies && has(held, moment))
    );
  });
}

const speakOfTheSame = (said: Clause, held: Clause): boolean =>
  said.about.some((stem) => held.stemSet.has(stem)) ||
  said.figures.some((figure) => held.figures.some((own) => quantityFits(figure, own)));

const has = ({ facts }: Clause, moment: Moment): boolean => facts.moments.some((own) => momentFits(moment, own));
