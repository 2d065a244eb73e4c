import type { Clause } from './clause.ts';
import { setOf } from './lexicon.ts';
import type { Moment } from './moments.ts';
import { periodsOf } from './periods.ts';
import type { Quantity } from './quantity.ts';
import { type Reckoning, type Way, whole } from './reckoning.ts';

const MINUTE = 60;
const MONTH = 2_592_000;
const YEAR = 31_536_000;
const DAY = 1_440;

/** Whether a date or a time of day follows from one that is told and how long something takes: 'in April', 'seven months later'. */
export function isReckonedMoment(moment: Moment, said: Clause, held: Reckoning): boolean {
  if (isYearBeside(moment, held) || isCountedTo(moment, said.figures, said, held)) return true;
  return held.clauses.some((by) =>
    by.facts.moments.some((own) =>
      held.clauses.some((lasting) => speaksOfIt(lasting, by, said) && isLaterBy(moment, own, lasting)),
    ),
  );
}

/** Whether how long a clause says something takes may be reckoned from a date: it is told with it, or of what is spoken of. */
const speaksOfIt = (lasting: Clause, by: Clause, said: Clause): boolean =>
  lasting.sentence === by.sentence ||
  lasting.about.some((stem) => said.stemSet.has(stem)) ||
  lasting.leans ||
  // 'It was closed in May 2019. Repairs took fourteen months.'
  (lasting.sentence.of === by.sentence.of && lasting.sentence.n === by.sentence.n + 1);

const SINCE = setOf(
  'old after later since anniversary birthday turned alt nach danach später seit jubiläum geburtstag bestehen bestand',
);

/** So many years after one a source tells: 'thirty years old in 2024' of what was founded in 1994. */
const isCountedTo = (
  { year, months }: Moment,
  figures: readonly Quantity[],
  said: Clause,
  { moments }: Reckoning,
): boolean =>
  year !== undefined &&
  !months &&
  said.has(SINCE) &&
  figures.some(({ means }) =>
    means.some(
      ({ dimension, value }) =>
        dimension === 'time' && moments.some((own) => own.year !== undefined && (year - own.year) * YEAR === value),
    ),
  );

/** The years themselves, which stand or fall with the year they lead to. */
export const isYearsSince: Way = (figure, said, held) =>
  said.facts.moments.some((moment) => isCountedTo(moment, [figure], said, held));

const LATER = setOf(
  'later after before earlier for took takes lasted lasts within in danach später nach davor früher vorher dauerte dauert lang innerhalb',
);

function isLaterBy(moment: Moment, own: Moment, lasting: Clause): boolean {
  const all = [...lasting.facts.quantities, ...lasting.facts.within].flatMap((figure) =>
    whole([figure]).flatMap(({ dimension, value, size }) =>
      dimension === 'time'
        ? [{ value, size, sign: own.clock === undefined ? signOf(figure, own, lasting) : sideOf(figure, lasting) }]
        : [],
    ),
  );
  return all.some(({ value, size, sign }) => {
    // 'So much a year' lasts no year.
    if (value === size && size >= MONTH && !lasting.has(LATER)) return false;
    if (moment.clock !== undefined)
      return own.clock !== undefined && size <= 3_600 && isClock(moment, own.clock + (sign || 1) * (value / MINUTE));
    if (moment.year === undefined || own.year === undefined || moment.weekday !== undefined) return false;
    const months = (size === YEAR ? 12 : size === MONTH ? 1 : 0) * Math.round(value / size);
    if (months === 0 || Math.abs(value % size) > 1) return false;
    // Of a year alone only whole years are told.
    if (!moment.months) {
      const years = moment.year - own.year;
      return months % 12 === 0 && (sign === 0 ? Math.abs(years) : years * sign) * 12 === months;
    }
    return own.months?.length === 1 && moment.months.some((month) => apart(moment.year!, month, own) === months);
  });
}

const LATER_THAN = setOf('later danach später');
const EARLIER_THAN = setOf('earlier davor zuvor früher');
const BEFORE = setOf('before bevor vor');
const AFTER = setOf('after nachdem nach');

/**
 * Whether so long leads from a date to a later one (1) or an earlier one (-1), or it is not said (0). 'In 1829, four years
 * before his brother did' leads to what the brother did; 'four years after the fire of 1829' to what was then.
 */
function signOf({ to }: Quantity, own: Moment, { tokens, facts }: Clause): -1 | 0 | 1 {
  const next = tokens[to]?.lower ?? '';
  if (LATER_THAN.has(next)) return 1;
  if (EARLIER_THAN.has(next)) return -1;
  const sign = BEFORE.has(next) ? -1 : AFTER.has(next) ? 1 : 0;
  if (sign === 0) return 0;
  const behind = tokens.slice(to + 1);
  const isWithin = facts.moments.includes(own) && own.from > to;
  return isWithin || !behind.some(({ content }) => content) ? sign : sign === 1 ? -1 : 1;
}

/** 'Half an hour before the museum closes': to a time of day before that of what stands behind. */
const sideOf = ({ to }: Quantity, { tokens }: Clause): -1 | 0 =>
  BEFORE.has(tokens[to]?.lower ?? '') || EARLIER_THAN.has(tokens[to]?.lower ?? '') ? -1 : 0;

const YEAR_BEFORE = /\b(?:(?:the|a) year (?:before|earlier)|previous year|Jahr (?:davor|zuvor)|Vorjahre?s?)\b/i;

const YEAR_AFTER =
  /\b(?:(?:the|a) year (?:after|later)|(?:following|next) year|Jahr (?:darauf|danach|später)|(?:folgenden|nächsten) Jahr|Folgejahre?s?)\b/i;

/** '63 in 2023, eleven more than the year before': that was 2022. */
const isYearBeside = ({ year, months }: Moment, { sentences }: Reckoning): boolean =>
  year !== undefined &&
  !months &&
  sentences.some(({ of }) => {
    const tells = (other: number) => of.clauses.some(({ facts }) => facts.moments.some((own) => own.year === other));
    return (YEAR_BEFORE.test(of.text) && tells(year + 1)) || (YEAR_AFTER.test(of.text) && tells(year - 1));
  });

const apart = (year: number, month: number, own: Moment): number =>
  Math.abs((year - own.year!) * 12 + month - own.months![0]!);

function isClock({ clock, half }: Moment, minutes: number): boolean {
  const round = half || clock! >= DAY / 2 ? DAY : DAY / 2;
  const away = (((clock! - minutes) % round) + round) % round;
  return Math.min(away, round - away) < 1;
}

/** So many times a week what is told of so many days of it. */
export function onWeekdays(figure: Quantity, said: Clause, { sentences }: Reckoning): boolean {
  // 'Three times a week' and 'three days a week'.
  const [meant] = figure.means;
  const times = meant && meant.value / (meant.dimension === 'time' ? meant.size : 1);
  if (times === undefined || !(periodsOf(said).has('week') || said.has(DAYS))) return false;
  return sentences.some(({ of }) => {
    const days = of.clauses.flatMap(({ facts }) => facts.moments.flatMap(({ weekday }) => weekday ?? []));
    return days.length > 1 && new Set(days).size === times;
  });
}

const DAYS = setOf('days tage tagen');
