import type { Clause } from './clause.ts';
import { type Quantity, quantityFits } from './quantity.ts';

/** Share of its words that a source has to have: 'what counts needs more than 4.6' is no 'below 4.6 is out of reach'. */
const OF_THE_SAME = 0.6;

const isOfTheSame = ({ about }: Clause, held: Clause): boolean =>
  about.filter((stem) => held.stemSet.has(stem)).length >= about.length * OF_THE_SAME;

/** 'A fifth are under 65': whoever says the other figure says it of the same. */
const hasOther = (said: Clause, figure: Quantity, held: Clause): boolean =>
  said.figures.some((one) => one !== figure && held.facts.quantities.some((own) => quantityFits(one, own)));

/** 'More than twenty lorries' of a bridge that carries no more than twenty: the same figure, as a bound from the other side. */
export function otherBound(said: Clause, sources: readonly Clause[]): boolean {
  return said.figures.some((figure) => {
    const turned = figure.says === 'over' ? 'under' : figure.says === 'under' ? 'over' : null;
    if (turned === null) return false;
    const holding = sources.flatMap((held) =>
      held.denies === said.denies && (isOfTheSame(said, held) || hasOther(said, figure, held))
        ? held.figures.filter((own) => quantityFits({ ...figure, says: 'exactly' }, own))
        : [],
    );
    return holding.length > 0 && holding.every(({ says }) => says === turned);
  });
}
