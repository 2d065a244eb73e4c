import type { Clause } from './clause.ts';
import { partOf } from './compared.ts';
import { setOf } from './lexicon.ts';
import { type Period, periodsOf, SECONDS } from './periods.ts';
import { type Meaning, near, type Quantity } from './quantity.ts';
import {
  BY_PERIODS,
  EXACT,
  EXACTLY,
  fits,
  MOST_TOGETHER,
  ONE,
  ROUNDED,
  singles,
  type Way,
  whole,
} from './reckoning.ts';

/** The most by which what is said for one is said for several. */
const MOST_FOLD = 12;

/** All figures of what is said are so many times those of one sentence: 180 grams for two litres, for 90 to the litre. */
const inProportion: Way = (_, said, { clauses, sentences }) => {
  const mine = [
    ...said.figures,
    ...singles(said).map((one): Pick<Quantity, 'means' | 'says'> => ({ means: [one], says: 'exactly' })),
  ];
  if (mine.length < 2 || mine.length > MOST_FOLD) return false;
  const beside = (held: Clause) => [...[...periodsOf(held)].map(asTime), ...singles(held), ...oneOfThem(held, said)];
  const tables = [
    ...clauses.map((held) => [...whole(held.figures), ...beside(held)]),
    // 'A bag costs £14 and is enough for three square metres.'
    ...sentences.flatMap(({ of }) =>
      of.clauses.length > 1 ? [whole(of.clauses.flatMap(({ figures }) => figures))] : [],
    ),
  ].filter(({ length }) => length <= MOST_TOGETHER);
  return tables.some((its) => {
    const folds = mine
      .flatMap(({ means }) => means)
      .flatMap((own) => its.flatMap((one) => (isWritten(own, one) ? own.value / one.value : [])));
    return folds.some(
      (fold) =>
        ((fold > 1 / MOST_FOLD && fold < MOST_FOLD) || isPower(fold)) &&
        Math.abs(fold - 1) > EXACT &&
        mine.every((one) =>
          one.means.some((own) =>
            its.some((other) => isWritten(own, other) && near(own.value, other.value * fold, one, EXACTLY, EXACT)),
          ),
        ),
    );
  });
};

/** A gram told as a kilo, and the other way round. */
const isPower = (fold: number): boolean => [100, 1_000].some((power) => isNear(fold, power) || isNear(1 / fold, power));
const isNear = (a: number, b: number): boolean => Math.abs(a / b - 1) < EXACT;

/** Whether both are in one unit: seven weeks are not seven times seven days, but a kilo is a thousand grams. */
const isWritten = (a: Meaning, b: Meaning) =>
  a.dimension === b.dimension && (a.size === b.size || a.dimension === 'mass' || a.dimension === 'volume');

/** One of the things that are counted here: 'two collars' for 'a collar'. */
const oneOfThem = (held: Clause, said: Clause): Meaning[] => {
  const counted = new Set(said.figures.flatMap(({ bare, to }) => (bare ? (said.tokens[to]?.stem ?? []) : [])));
  const { tokens } = held.sentence.clauses[0]!;
  const is = tokens.some(({ lower }, at) => ONE.has(lower) && counted.has(tokens[at + 1]?.stem ?? ''));
  return is ? [{ dimension: 'count', value: 1, size: 1 }] : [];
};

const asTime = (period: Period): Meaning => ({ dimension: 'time', value: SECONDS[period], size: SECONDS[period] });

/** So much a week for so much a month, and so often an hour for every so many minutes. */
const byPeriod: Way = (figure, said, { clauses }) => {
  const own = [...periodsOf(said)];
  if (own.length !== 1) return false;
  const seconds = SECONDS[own[0]!];
  // 'For a day' is no figure of something a day.
  if (figure.means.some(({ dimension, value }) => dimension === 'time' && value === seconds)) return false;
  const often = partOf(figure)?.dimension === 'times' ? partOf(figure)!.value : null;
  return clauses.some((held) => {
    const its = [...periodsOf(held)];
    const every = held.tokens.some(({ lower }) => EVERY.has(lower));
    if (often !== null && every)
      return whole(held.figures).some(
        ({ dimension, value }) => dimension === 'time' && Math.abs(often * value - seconds) < seconds * EXACT,
      );
    if (its.length !== 1 || its[0] === own[0]) return false;
    if (often !== null)
      return held.figures.some((one) => {
        const times = partOf(one)?.dimension === 'times' ? partOf(one)!.value : null;
        return times !== null && near(often, (times * seconds) / SECONDS[its[0]!], figure, EXACTLY, BY_PERIODS);
      });
    const each = seconds / SECONDS[its[0]!];
    // Who reckons in the head takes a month for four weeks.
    const rough =
      own[0] === 'month' && its[0] === 'week' ? [4] : own[0] === 'week' && its[0] === 'month' ? [1 / 4] : [];
    return whole(held.figures).some((one) =>
      [each, ...rough].some((times) =>
        fits(figure, one.value * times, one, figure.says === 'exactly' ? ROUNDED : BY_PERIODS),
      ),
    );
  });
};

const EVERY = setOf('every alle');

/** Ways by what comes to each of several, or to a time. */
export const BY_RATES: readonly Way[] = [inProportion, byPeriod];
