import type { Clause } from './clause.ts';
import { quantityFits } from './quantity.ts';

/** 'More than twenty lorries' of a bridge that carries no more than twenty: the same figure, as a bound from the other side. */
export function otherBound(said: Clause, sources: readonly Clause[]): boolean {
  return said.figures.some((figure) => {
    const turned = figure.says === 'over' ? 'under' : figure.says === 'under' ? 'over' : null;
    if (turned === null) return false;
    const holding = sources.flatMap((held) =>
      held.denies === said.denies
        ? held.figures.filter((own) => quantityFits({ ...figure, says: 'exactly' }, own))
        : [],
    );
    return holding.length > 0 && holding.every(({ says }) => says === turned);
  });
}
