import type { Clause } from './clause.ts';
import { partOf } from './compared.ts';
import { setOf } from './lexicon.ts';
import type { Moment } from './moments.ts';
import { periodsOf } from './periods.ts';
import { near, type Quantity } from './quantity.ts';
import type { Reckoning } from './reckoning.ts';

const MINUTE = 60;
const MONTH = 2_592_000;
const YEAR = 31_536_000;
const DAY = 1_440;

/** Whether a date or a time of day follows from one that is told and how long something takes: 'in April', 'seven months later'. */
export function isReckonedMoment(moment: Moment, { moments, meanings }: Reckoning): boolean {
  const lasting = meanings.filter(({ dimension }) => dimension === 'time');
  return moments.some((own) =>
    lasting.some(({ value, size }) => {
      if (moment.clock !== undefined)
        return own.clock !== undefined && size <= 3_600 && isClock(moment, own.clock + value / MINUTE);
      if (moment.year === undefined || own.year === undefined || moment.weekday !== undefined) return false;
      const months = (size === YEAR ? 12 : size === MONTH ? 1 : 0) * Math.round(value / size);
      if (months === 0 || Math.abs(value % size) > 1) return false;
      // Of a year alone only whole years are told.
      if (!moment.months) return months % 12 === 0 && Math.abs(moment.year - own.year) * 12 === months;
      return own.months?.length === 1 && moment.months.some((month) => apart(moment.year!, month, own) === months);
    }),
  );
}

const apart = (year: number, month: number, own: Moment): number =>
  Math.abs((year - own.year!) * 12 + month - own.months![0]!);

function isClock({ clock, half }: Moment, minutes: number): boolean {
  const round = half || clock! >= DAY / 2 ? DAY : DAY / 2;
  const away = (((clock! - minutes) % round) + round) % round;
  return Math.min(away, round - away) < 1;
}

const TO = setOf('to until till through bis');

/** So many months from one to another: 'from November to March' is four, or five with both. */
export function fromMonthToMonth(figure: Quantity, _: Clause, { clauses }: Reckoning): boolean {
  return clauses.some(({ facts, tokens }) => {
    const named = facts.moments.filter(({ months, day }) => months?.length === 1 && day === undefined);
    return named.some((first, i) => {
      const last = named[i + 1];
      if (!last || !tokens.slice(first.to, last.from).some(({ lower }) => TO.has(lower))) return false;
      const months = (last.months![0]! - first.months![0]! + 12) % 12;
      return [months, months + 1].some(
        (n) =>
          n > 0 &&
          figure.means.some(({ dimension, value }) => dimension === 'time' && isAbout(value, n * MONTH, figure)),
      );
    });
  });
}

const isAbout = (value: number, other: number, figure: Quantity) =>
  near(value, other, figure, { says: 'exactly' }, 0.01);

/** So many times a week what is told of so many days of it. */
export function onWeekdays(figure: Quantity, said: Clause, { sentences }: Reckoning): boolean {
  const times = partOf(figure)?.dimension === 'times' ? partOf(figure)!.value : figure.means[0]?.value;
  if (times === undefined || !(periodsOf(said).has('week') || said.has(DAYS))) return false;
  return sentences.some(({ of }) => {
    const days = of.clauses.flatMap(({ facts }) => facts.moments.flatMap(({ weekday }) => weekday ?? []));
    return days.length > 1 && new Set(days).size === times;
  });
}

const DAYS = setOf('days tage tagen');
