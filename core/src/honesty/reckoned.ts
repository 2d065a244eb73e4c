import { bareWords, type Clause, type Sentence } from './clause.ts';
import { partOf } from './compared.ts';
import { setOf, sidesOf } from './lexicon.ts';
import { momentFits } from './moments.ts';
import { type Meaning, near, type Quantity } from './quantity.ts';
import { isAge, OLD } from './reckonedAges.ts';
import { BY_PARTS } from './reckonedParts.ts';
import { BY_RATES } from './reckonedRates.ts';
import { isYearsSince, onWeekdays } from './reckonedTimes.ts';
import {
  BACK,
  EXACT,
  EXACTLY,
  fits,
  OF_THEM,
  REST,
  type Reckoning,
  ROUNDED,
  singles,
  type Way,
  whole,
} from './reckoning.ts';
import { fromMonthToMonth } from './spans.ts';

/**
 * Whether a figure stands in no source but follows from what they say, as a writer reckons: what lies between two, so
 * much less than another, a part or a multiple of another, the rest of a whole, so much a week for so much a month.
 * Each way asks for words that say so, or for one sentence that tells both: of any two figures nearly every third follows.
 */
export const isReckoned: Way = (figure, said, held) => WAYS.some((way) => way(figure, said, held));

const MORE_OR_LESS = setOf(
  'more less fewer higher lower up down later earlier older younger longer shorter rise fall rose fell increase mehr weniger höher niedriger später früher älter jünger länger kürzer zunahme abnahme after before since ago dearer cheaper heavier lighter bigger larger smaller taller wider deeper faster slower warmer colder hotter teurer billiger schwerer leichter größer kleiner breiter tiefer schneller langsamer wärmer kälter nach vor danach davor lost gained additional extra hinzu hinzukommen dazu dazukommen zusätzlich zusätzliche verlor verloren gewann gewonnen',
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

/**
 * A part or a multiple that two figures come to: with the same unit wherever they stand, numbers of things where one
 * sentence tells both; and what is left of one, or was added to it: 'a third less'.
 */
const isRatio: Way = (figure, said, { clauses, sentences }) => {
  const part = partOf(figure);
  if (!part) return false;
  const follows = (all: readonly Meaning[], near: ReadonlySet<Meaning> | null = null) =>
    all.some((a) =>
      all.some(
        (b) =>
          a !== b &&
          a.dimension === b.dimension &&
          b.value > 0 &&
          (near === null || (near.has(a) && near.has(b))) &&
          ratioFits(figure, part, a, b, said),
      ),
    );
  const [counts, measured] = [true, false].map(
    (counting) => (of: readonly Quantity[]) =>
      of.flatMap((one) =>
        whole([one])
          .filter(({ dimension }) => (dimension === 'count') === counting)
          .slice(0, 1),
      ),
  ) as [(of: readonly Quantity[]) => Meaning[], (of: readonly Quantity[]) => Meaning[]];
  if (sentences.some(({ figures }) => follows(counts(figures)))) return true;
  // Of the many that are measured somewhere one at least is measured of what is spoken of; 'a kilo' is one.
  const by = clauses.map((held) => ({ held, all: [...measured(held.facts.quantities), ...singles(held)] }));
  const near = by.filter(({ held }) => said.subject === null || isOnTheSame(said, held));
  return follows(
    by.flatMap(({ all }) => all),
    new Set(near.flatMap(({ all }) => all)),
  );
};

/** Letters of a word that stands within another: 'schälen', 'geschält'. */
const LEAST_WITHIN = 4;

/** Whether a sentence has a word of what is said, or one that holds it. */
const isOnTheSame = ({ about }: Clause, { sentence }: Clause): boolean =>
  about.some(
    (stem) =>
      sentence.stems.has(stem) ||
      (stem.length >= LEAST_WITHIN && [...sentence.stems].some((own) => own.includes(stem) || stem.includes(own))),
  );

function ratioFits(figure: Quantity, part: Meaning, a: Meaning, b: Meaning, said: Clause): boolean {
  const ratio = a.value / b.value;
  // 'A third less', 'loses a third', 'half as much again'.
  const lost = part.value < 1 && ratio < 1 && said.has(LOSING) ? [1 - ratio] : [];
  const gained = part.value < 1 && ratio > 1 && said.has(GAINING) ? [ratio - 1] : [];
  return [ratio, ...lost, ...gained].some((value) => near(part.value, value, figure, EXACTLY, ROUNDED));
}

const LOSING = setOf(
  'less fewer lose loses lost losing shrink shrinks shrank shrunk fall falls fell fallen drop drops dropped lower shorter lighter smaller cheaper down reduced reduces saves weniger verliert verlor verloren schrumpft sinkt sank gesunken fiel fällt gefallen niedriger kürzer leichter kleiner billiger spart',
);
const GAINING = setOf(
  'more again grow grows grew grown rise rises rose risen gain gains gained higher longer heavier larger bigger dearer up mehr wuchs wächst gewachsen steigt stieg gestiegen höher länger schwerer größer teurer',
);

const SINCE = setOf('before earlier previously once then formerly until vorher zuvor davor früher einst bis');

/** What something was before it doubled, and a part or a multiple of what the same sentence tells: 'half price for children'. */
const partOfIt: Way = (figure, said, { sentences }) => {
  if (partOf(figure)) return false;
  return sentences.some(({ figures: own, of: sentence }, i) =>
    own.some((by) => {
      const times = partOf(by)?.value;
      if (times === undefined || (by.grows && !said.has(SINCE))) return false;
      const says = figure.says === 'exactly' ? by.says : figure.says;
      // 'Twice as many as in 2012', told of 2012.
      const back = times > 1 && isOfThen(said, sentence);
      // 'They planted 5,600. A third of them died.'
      const before =
        times < 1 && OF_THEM.test(sentence.text)
          ? sentences
              .slice(Math.max(0, i - BACK), i)
              .flatMap(({ of, figures }) => (of.of === sentence.of ? figures.filter(({ bare }) => bare) : []))
          : [];
      const all = [...own, ...before];
      return whole(all).some(
        (one) =>
          fits({ ...figure, says }, by.grows ? one.value / times : one.value * times, one) ||
          (back && fits({ ...figure, says }, one.value / times, one)),
      );
    }),
  );
};

/** Told of the time a sentence compares with: the last one it names. */
function isOfThen(said: Clause, { clauses }: Sentence): boolean {
  const then = clauses.flatMap(({ facts }) => facts.moments).at(-1);
  return then !== undefined && said.facts.moments.some((moment) => momentFits(moment, then));
}

/** Risen by half, of half as much again. */
const grownBy: Way = (figure, said, { quantities }) => {
  const part = partOf(figure);
  if (!part || part.value >= 1) return false;
  const sign = said.has(GAINING) ? 1 : said.has(LOSING) ? -1 : 0;
  return (
    sign !== 0 &&
    quantities.some((one) => {
      const its = partOf(one);
      return its !== undefined && near(part.value, sign * (its.value - 1), figure, EXACTLY, ROUNDED);
    })
  );
};

/** 'Holds 30 per cent, a cooperative the rest': told of the cooperative. */
const hasTheRest = (said: Clause, { sentence }: Clause): boolean =>
  sentence.clauses.some((other) => other.has(REST) && other.about.some((stem) => said.stemSet.has(stem)));

/** The rest of a whole, told of the other side: two thirds are women, 'one third are men'. */
const isRest: Way = (figure, said, { clauses, sentences }) => {
  const part = partOf(figure);
  if (figure.bare && !part && isOtherSide(said, sentences)) {
    const counts = sentences.flatMap(({ figures }) => [figures.filter(({ bare }) => bare)]);
    if (counts.some((all) => whole(all).some((a) => whole(all).some((b) => fits(figure, a.value - b.value, a, EXACT)))))
      return true;
  }
  if (part?.dimension !== 'share') return false;
  if (isRestOfAll(figure, part, said, sentences)) return true;
  const mine = bareWords(said);
  const isOther = (held: Clause) => {
    const its = bareWords(held);
    const told = (a: string, b: string) => mine.has(a) && its.has(b) && !mine.has(b);
    return sidesOf(said.language).some(([a, b]) => told(a, b) || told(b, a));
  };
  return clauses.some(
    (held) =>
      held.facts.quantities.some((one) => {
        const its = partOf(one);
        return its?.dimension === 'share' && near(part.value, 1 - its.value, figure, EXACTLY, ROUNDED);
      }) &&
      (said.has(REST) || isOther(held) || hasTheRest(said, held)),
  );
};

/** What two shares or more of one whole leave: '68 per cent wanted it, 21 did not, the rest had no opinion'. */
const isRestOfAll = (figure: Quantity, part: Meaning, said: Clause, sentences: Reckoning['sentences']): boolean =>
  sentences.some(({ figures, of }) => {
    const shares = figures.flatMap((one) => (partOf(one)?.dimension === 'share' ? [partOf(one)!.value] : []));
    const left = 1 - shares.reduce((sum, one) => sum + one, 0);
    return (
      shares.length > 1 &&
      left > 0 &&
      (said.has(REST) || of.clauses.some((held) => held.has(REST))) &&
      near(part.value, left, figure, EXACTLY, ROUNDED)
    );
  });

/** Told of the men where a sentence counts the women. */
function isOtherSide(said: Clause, sentences: readonly { of: Sentence }[]): boolean {
  const mine = bareWords(said);
  return sidesOf(said.language).some(([a, b]) => {
    const other = mine.has(a) ? b : mine.has(b) ? a : null;
    return other !== null && sentences.some(({ of }) => of.clauses.some((held) => bareWords(held).has(other)));
  });
}

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
  isRatio,
  partOfIt,
  grownBy,
  isRest,
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
