import { onceEach } from '../sentence/remembered.ts';
import type { Clause } from './clause.ts';
import { setOf } from './lexicon.ts';
import { SEASON_OF, SEASONS } from './partsOfYear.ts';
import { quantityFits } from './quantity.ts';

/** Seasons a clause names, each with where it stands. */
const seasonsOf = (clause: Clause): readonly number[] =>
  clause.once('seasons', () =>
    clause.tokens.flatMap(({ lower }, at) => {
      const season = SEASON_OF.get(lower);
      // A spring of water has another word before it than one of time; 'fall' is rarely a season, and 'in the fall' one.
      return season === undefined || (MEANS_MORE.has(lower) && !isTime(clause, at)) ? [] : [season];
    }),
  );

const MEANS_MORE = setOf('spring fall');
const BEFORE_TIMES =
  /^(?:in|of|the|last|next|this|each|every|early|late|since|until|by|from|during|one|first|and|than|through|over|before|after|mid|second)$/;
const isTime = ({ tokens }: Clause, at: number): boolean => BEFORE_TIMES.test(tokens[at - 1]?.lower ?? '');

/** Seasons and months that sources name. */
const timesOf = onceEach((sources: readonly Clause[]) => ({
  named: new Set(sources.flatMap(seasonsOf)),
  months: new Set(sources.flatMap(({ facts }) => facts.moments.flatMap((moment) => moment.months ?? []))),
}));

const SHUT = setOf('closed shut closes rests sleeps geschlossen zu schließt ruht ruhen');

/** 'In spring the lamp is lit' where sources speak of winter alone: a season none of them names, nor any month of it. */
export function otherSeason(said: Clause, sources: readonly Clause[]): boolean {
  const mine = seasonsOf(said);
  if (mine.length === 0) return false;
  // 'In spring two a day' of what is twice a day in winter.
  const holding = sources.filter(
    (held) =>
      said.figures.length > 0 &&
      said.figures.every((figure) => held.facts.quantities.some((own) => quantityFits(figure, own))),
  );
  if (
    mine.length === 1 &&
    holding.length > 0 &&
    holding.every((held) => seasonsOf(held).length > 0 && !seasonsOf(held).includes(mine[0]!))
  )
    return true;
  const { named, months } = timesOf(sources);
  // 'Open from May to September' says of winter that it is shut.
  if (named.size === 0 && (months.size === 0 || said.denies || said.has(SHUT))) return false;
  return mine.some((season) => !named.has(season) && !SEASONS[season]!.months.some((month) => months.has(month)));
}
