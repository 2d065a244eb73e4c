import { partOf } from './compared.ts';
import { setOf } from './lexicon.ts';
import type { Meaning, Quantity } from './quantity.ts';
import { isAge, OLD } from './reckonedAges.ts';
import { BY_PARTS } from './reckonedParts.ts';
import { BY_RATES } from './reckonedRates.ts';
import { BY_SHARES } from './reckonedShares.ts';
import { isYearsSince, onWeekdays } from './reckonedTimes.ts';
import { EXACT, fits, type Way, whole } from './reckoning.ts';
import { fromMonthToMonth } from './spans.ts';

/**
 * Whether a figure stands in no source but follows from what they say, as a writer reckons: what lies between two, so
 * much less than another, a part or a multiple of another, the rest of a whole, so much a week for so much a month.
 * Each way asks for words that say so, or for one sentence that tells both: of any two figures nearly every third follows.
 */
export const isReckoned: Way = (figure, said, held) => WAYS.some((way) => way(figure, said, held));

const MORE_OR_LESS = setOf(
  'more less fewer higher lower up down later earlier older younger longer shorter rise fall rose fell increase difference apart gap unterschied differenz abstand mehr weniger höher niedriger später früher älter jünger länger kürzer zunahme abnahme after before since ago dearer cheaper heavier lighter bigger larger smaller taller wider deeper faster slower warmer colder hotter teurer billiger schwerer leichter größer kleiner breiter tiefer schneller langsamer wärmer kälter nach vor danach davor lost gained additional extra hinzu hinzukommen dazu dazukommen zusätzlich zusätzliche verlor verloren gewann gewonnen',
);
const YEAR = 31_536_000;

/** So much more or later than another: what lies between two figures of one sort, or two years. */
const liesBetween: Way = (figure, said, { meanings, moments }) => {
  const compares = said.has(MORE_OR_LESS);
  if (!compares && !said.has(OLD)) return false;
  const time = (of: readonly (number | undefined)[], size: number) =>
    of.flatMap((value) => (value === undefined ? [] : [{ dimension: 'time' as const, value: value * size }]));
  const years = time(
    moments.map(({ year }) => year),
    YEAR,
  );
  const clocks = time(
    moments.map(({ clock }) => clock),
    60,
  );
  // How old something was is told by years alone: of a letter of 1743 that was found in 2018.
  return (compares ? [[...meanings, ...years], clocks] : [years]).some((all) => liesBetweenTwo(figure, all));
};

const liesBetweenTwo = (figure: Quantity, all: readonly Pick<Meaning, 'dimension' | 'value'>[]): boolean =>
  all.some((a) => all.some((b) => a !== b && a.dimension === b.dimension && fits(figure, a.value - b.value, a, EXACT)));

const LESS = setOf('less fewer lower earlier sooner shorter faster weniger früher eher kürzer schneller');
const MORE = setOf('more later longer slower mehr später länger langsamer');
const THAN = setOf('than als');

/** What something came to that was so much less or more than another, or that other: '74 million, 19 more than planned'. */
const lessBy: Way = (figure, said, { meanings: all, clauses }) => {
  // '8 hours 28 minutes' is one time: each of both stands for it.
  const joined = said.facts.within.find(({ from, to }) => from <= figure.from && figure.to <= to);
  const mine = joined ?? figure;
  return clauses.some((by) => {
    const sign = by.has(LESS) ? -1 : by.has(MORE) ? 1 : 0;
    // 'Than' names the other one, whose it is then.
    const other = by.has(THAN) ? -sign : sign;
    return (
      sign !== 0 &&
      (joined !== undefined || by.stems.some((stem) => said.stemSet.has(stem))) &&
      whole(by.facts.quantities).some((gap) =>
        all.some(
          (one) =>
            one !== gap && one.dimension === gap.dimension && fits(mine, one.value + other * gap.value, one, EXACT),
        ),
      )
    );
  });
};

/** What lies between two years that are told as one time: 'between 1998 and 2004' is six years. */
const fromYearTo: Way = (figure, _, { clauses }) =>
  clauses.some(({ facts: { moments }, tokens }) =>
    moments.some((first, i) => {
      const last = moments[i + 1];
      if (first.year === undefined || last?.year === undefined) return false;
      const joined = tokens.slice(first.to, last.from).map(({ lower }) => lower);
      const before = tokens[first.from - 1]?.lower ?? '';
      const isOne = joined.length === 1 && (SPANNING.has(joined[0]!) || (BETWEEN.has(before) && AND.has(joined[0]!)));
      const years = last.year - first.year;
      return isOne && years > 0 && [years, years + 1].some((n) => fits(figure, n * YEAR, { dimension: 'time' }, A_DAY));
    }),
  );
/** Years have 365 days here and 365.25 there. */
const A_DAY = 0.001;
const SPANNING = setOf('to until till bis – — -');
const BETWEEN = setOf('between zwischen');

const TO = setOf('to until till bis');

/** What lies between two times of day: 'from 19 to 21 o’clock' takes two hours. */
const fromTo: Way = (figure, _, { clauses }) =>
  clauses.some(({ facts: { moments, quantities }, tokens }) => {
    const clocks = moments.flatMap(({ clock }) => clock ?? []);
    const last = clocks.at(-1);
    // 'From 19 to 21 o’clock': the first is but a number.
    const before = quantities.find(({ bare, to }) => bare && TO.has(tokens[to]?.lower ?? ''))?.means[0];
    const first = clocks.length > 1 ? clocks[0] : before && before.value * 60;
    if (first === undefined || last === undefined || first === last) return false;
    // Over midnight.
    const minutes = last > first ? last - first : last - first + 1_440;
    return fits(figure, minutes * 60, { dimension: 'time' }, EXACT);
  });

const TOGETHER = setOf('together altogether total combined both all zusammen insgesamt beide alle');

/** What several come to together: two butts of 300 litres, 12 of one and 20 of the other. */
const together: Way = (figure, said, { sentences }) =>
  said.has(TOGETHER) &&
  sentences.some(({ figures }) => {
    const all = whole(figures);
    return all.some((a) =>
      all.some(
        (b) =>
          a !== b &&
          ((a.dimension === b.dimension && fits(figure, a.value + b.value, a, EXACT)) ||
            (a.dimension === 'count' && a.value > 1 && fits(figure, a.value * b.value, b, EXACT))),
      ),
    );
  });

const CHANGES = setOf(
  'cut reduced lowered fell dropped down raised increased rose up put gesenkt gekürzt erhöht stieg sank fiel gestiegen gesunken angehoben',
);
const FORMERLY = setOf(
  'before earlier previously formerly once used was were until vorher zuvor davor früher einst bisher',
);
const BY = setOf('by um');
const UP_TO = setOf('to auf');

/** What it was before it changed by so much to so much: 'cut by £60 to £180' was £240. */
const beforeItChanged: Way = (figure, said, { clauses }) =>
  said.has(FORMERLY) &&
  clauses.some(
    (held) =>
      held.has(CHANGES) &&
      held.figures.some((gap, i) => {
        const now = held.figures[i + 1];
        return (
          now !== undefined &&
          BY.has(held.tokens[gap.from - 1]?.lower ?? '') &&
          UP_TO.has(held.tokens[now.from - 1]?.lower ?? '') &&
          whole([gap]).some((by) =>
            whole([now]).some(
              (to) =>
                by.dimension === to.dimension &&
                (fits(figure, to.value + by.value, to, EXACT) || fits(figure, to.value - by.value, to, EXACT)),
            ),
          )
        );
      }),
  );

const SUITS = setOf(
  'ideal best right fine good enough suitable perfect suits optimal richtig gut genug passend perfekt geeignet recht reicht reichen',
);

/** What lies in a range that a source names: 'thirty degrees are ideal' of what is best at 28 to 32. */
const inRange: Way = (figure, said, { clauses }) =>
  said.has(SUITS) &&
  clauses.some((held) =>
    held.figures.some((first, i) => {
      const last = held.figures[i + 1];
      if (last === undefined || last.from - first.to !== 1) return false;
      return figure.means.some((mine) =>
        first.means.some(
          (from) =>
            from.dimension === mine.dimension &&
            from.value <= mine.value &&
            last.means.some((to) => to.dimension === mine.dimension && mine.value <= to.value),
        ),
      );
    }),
  );

const AGAIN = setOf('again erneut abermals nochmals');
const AND = setOf('and und');

/** 'In 2022 and again in 2024' is twice. */
const twiceAgain: Way = (figure, said, { clauses }) =>
  partOf(figure)?.dimension === 'times' &&
  partOf(figure)!.value === 2 &&
  clauses.some((held) => {
    const again = held.tokens.findIndex(
      ({ lower }, at) => AGAIN.has(lower) && AND.has(held.tokens[at - 1]?.lower ?? held.after),
    );
    return (
      again !== -1 &&
      held.facts.moments.some(({ from }) => from > again) &&
      held.sentence.clauses.some(({ about }) => about.some((stem) => said.stemSet.has(stem)))
    );
  });

const WAYS: readonly Way[] = [
  liesBetween,
  lessBy,
  fromTo,
  fromYearTo,
  ...BY_SHARES,
  together,
  ...BY_RATES,
  isAge,
  twiceAgain,
  beforeItChanged,
  inRange,
  ...BY_PARTS,
  fromMonthToMonth,
  isYearsSince,
  onWeekdays,
];
