import type { Clause } from './clause.ts';
import { turned as comparesRound, partOf } from './compared.ts';
import { EARLIER, setOf } from './lexicon.ts';
import { type Quantity, quantityFits } from './quantity.ts';

const MORE = setOf('more higher longer larger bigger dearer heavier mehr höher länger größer teurer schwerer');
const LESS = setOf(
  'less fewer lower shorter smaller cheaper lighter weniger niedriger kürzer kleiner billiger leichter',
);

/** Verbs of what becomes more or less by a figure. */
const RISING = setOf(
  'rose rise rises risen grew grows grown gained gains increased increases climbed climbs stieg steigt stiegen gestiegen wuchs wächst gewachsen zugenommen',
);
const FALLING = setOf(
  'fell fall falls fallen dropped drops decreased decreases sank sinks shrank shrinks declined declines dropping lost loses sank sinkt sanken gesunken fiel fällt fielen gefallen schrumpfte schrumpft geschrumpft abgenommen',
);

/** Whether a part says by how much something is more or less; null where it says neither. */
export function directionOf({ tokens }: Clause, { to }: Quantity): 'more' | 'less' | null {
  const next = tokens[to]?.lower ?? '';
  return MORE.has(next) ? 'more' : LESS.has(next) ? 'less' : null;
}

/** The same, or by the verb of what it rises or falls by. */
function trendOf(clause: Clause, figure: Quantity): 'more' | 'less' | null {
  const own = directionOf(clause, figure);
  if (own !== null || clause.denies) return own;
  const [rising, falling] = [clause.has(RISING), clause.has(FALLING)];
  return rising === falling ? null : rising ? 'more' : 'less';
}

const THAN = setOf('than als');

/** 'Eleven launches more than', where what it is compared with stands behind it. */
function comparedBy({ tokens }: Clause, { to }: Quantity): 'more' | 'less' | null {
  const at = [to, to + 1].find((place) => THAN.has(tokens[place + 1]?.lower ?? ''));
  if (at === undefined || tokens.slice(0, at).some(({ lower }) => EARLIER.has(lower))) return null;
  const { lower } = tokens[at]!;
  return MORE.has(lower) ? 'more' : LESS.has(lower) ? 'less' : null;
}

/** 'A third more' for 'a third less', of what the same is said of. */
export function otherDirection(said: Clause, sources: readonly Clause[]): boolean {
  return said.facts.quantities.some((figure) => {
    const mine = partOf(figure) ? trendOf(said, figure) : comparedBy(said, figure);
    if (mine === null) return false;
    const its = sources.flatMap((held) =>
      said.about.some((stem) => held.sentence.stems.has(stem))
        ? held.facts.quantities.flatMap((own) =>
            !partOf(own) === !partOf(figure) && quantityFits(figure, own) && !comparesRound(said, held)?.round
              ? ((partOf(own) ? trendOf(held, own) : comparedBy(held, own)) ?? [])
              : [],
          )
        : [],
    );
    return its.length > 0 && !its.includes(mine);
  });
}
