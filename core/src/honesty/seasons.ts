import type { Clause } from './clause.ts';
import { setOf } from './lexicon.ts';
import { quantityFits } from './quantity.ts';

/** Seasons by their words, with the months people mean by them. */
const SEASONS: readonly { words: readonly string[]; months: readonly number[] }[] = [
  { words: ['spring', 'springtime', 'frühjahr', 'frühling', 'frühjahrs', 'frühlings'], months: [2, 3, 4, 5, 6] },
  {
    words: ['summer', 'summers', 'midsummer', 'sommer', 'sommers', 'hochsommer', 'sommermonaten'],
    months: [5, 6, 7, 8, 9],
  },
  { words: ['autumn', 'autumns', 'herbst', 'herbstes'], months: [8, 9, 10, 11, 12] },
  { words: ['winter', 'winters', 'midwinter', 'winters', 'wintermonaten'], months: [11, 12, 1, 2, 3] },
];
const BY_WORD: ReadonlyMap<string, number> = new Map(
  SEASONS.flatMap(({ words }, season) => words.map((word): [string, number] => [word, season])),
);

/** Seasons a clause names, each with where it stands. */
const seasonsOf = (clause: Clause): readonly number[] =>
  clause.once('seasons', () =>
    clause.tokens.flatMap(({ lower }, at) => {
      const season = BY_WORD.get(lower);
      // A spring of water or of steel has another word before it than one of time.
      return season === undefined || (lower === 'spring' && !isTime(clause, at)) ? [] : [season];
    }),
  );

const BEFORE_TIMES =
  /^(?:in|of|the|last|next|this|each|every|early|late|since|until|by|from|during|one|first|and|than|through|over|before|after|mid|second)$/;
const isTime = ({ tokens }: Clause, at: number): boolean => BEFORE_TIMES.test(tokens[at - 1]?.lower ?? '');

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
  const named = new Set(sources.flatMap(seasonsOf));
  const months = new Set(sources.flatMap(({ facts }) => facts.moments.flatMap((moment) => moment.months ?? [])));
  // 'Open from May to September' says of winter that it is shut.
  if (named.size === 0 && (months.size === 0 || said.denies || said.has(SHUT))) return false;
  return mine.some((season) => !named.has(season) && !SEASONS[season]!.months.some((month) => months.has(month)));
}
