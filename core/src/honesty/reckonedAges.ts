import type { Clause } from './clause.ts';
import { setOf } from './lexicon.ts';
import type { Quantity } from './quantity.ts';
import { fits, type Way, whole } from './reckoning.ts';

export const OLD = setOf('old aged age alt alte älteste jüngste oldest youngest');
const YEARS = 31_557_600;
const SOMEBODY = setOf('child boy girl anyone someone pupil person kind');

/** 'A child of ten'. */
const isSomebodyOf = ({ bare, from }: Quantity, { tokens }: Clause): boolean =>
  bare && /^(?:of|von)$/.test(tokens[from - 1]?.lower ?? '') && SOMEBODY.has(tokens[from - 2]?.lower ?? '');

/** So old, of whom a source tells the number of years alone, or the age they are under: 'a four-year-old', 'under six'. */
export const isAge: Way = (figure, said, { quantities }) => {
  const isOf = isSomebodyOf(figure, said);
  if (!isOf && !said.has(OLD)) return false;
  // An age by itself is one of years.
  const mine = figure.means.flatMap(({ dimension, value }) =>
    dimension === 'time' ? [value] : dimension === 'count' && isOf ? [value * YEARS] : [],
  );
  return quantities.some((one) =>
    whole([one]).some(({ dimension, value }) => {
      const age = dimension === 'time' ? value : one.bare && dimension === 'count' ? value * YEARS : null;
      if (age === null) return false;
      const isSame = one.bare && fits(figure, age, { dimension: 'time' });
      return isSame || (one.says === 'under' && mine.some((own) => own < age));
    }),
  );
};
