import type { Clause } from './clause.ts';
import { partOf } from './compared.ts';
import { setOf } from './lexicon.ts';
import { type Quantity, quantityFits } from './quantity.ts';

const MORE = setOf('more higher longer larger bigger dearer heavier mehr höher länger größer teurer schwerer');
const LESS = setOf(
  'less fewer lower shorter smaller cheaper lighter weniger niedriger kürzer kleiner billiger leichter',
);

/** Whether a part says by how much something is more or less; null where it says neither. */
export function directionOf({ tokens }: Clause, { to }: Quantity): 'more' | 'less' | null {
  const next = tokens[to]?.lower ?? '';
  return MORE.has(next) ? 'more' : LESS.has(next) ? 'less' : null;
}

/** 'A third more' for 'a third less', of what the same is said of. */
export function otherDirection(said: Clause, sources: readonly Clause[]): boolean {
  return said.facts.quantities.some((figure) => {
    const mine = partOf(figure) ? directionOf(said, figure) : null;
    if (mine === null) return false;
    const its = sources.flatMap((held) =>
      said.about.some((stem) => held.sentence.stems.has(stem))
        ? held.facts.quantities.flatMap((own) =>
            partOf(own) && quantityFits(figure, own) ? (directionOf(held, own) ?? []) : [],
          )
        : [],
    );
    return its.length > 0 && !its.includes(mine);
  });
}
