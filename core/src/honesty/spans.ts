import type { Clause } from './clause.ts';
import { setOf } from './lexicon.ts';
import type { Moment } from './moments.ts';
import { near, type Quantity } from './quantity.ts';
import type { Reckoning } from './reckoning.ts';

const MONTH = 2_592_000;
const TO = setOf('to until till through bis – - and und');
const PLAINLY_TO = setOf('to until till through bis');
const BETWEEN = setOf('between zwischen');

/** From one to another: two months, two days of a year or two days of a week. */
interface Span {
  first: Moment;
  last: Moment;
}

/** Dates of one sort that are named one after the other as a span: 'from May to September', 'Tuesday to Sunday'. */
const spansOf = (held: Clause, isOf: (moment: Moment) => boolean): readonly Span[] => {
  const { facts, tokens } = held;
  const named = facts.moments.filter(isOf);
  return named.flatMap((first, i) => {
    const last = named[i + 1];
    if (last === undefined) return [];
    const joined = tokens.slice(first.to, last.from).map(({ lower }) => lower);
    const isBetween = BETWEEN.has(tokens[first.from - 1]?.lower ?? '');
    const isTo =
      joined.some((lower) => PLAINLY_TO.has(lower)) ||
      (joined.length === 1 && TO.has(joined[0]!) && (isBetween || !/^(?:and|und)$/.test(joined[0]!)));
    return isTo ? [{ first, last }] : [];
  });
};

const isMonth = ({ months, day }: Moment): boolean => months?.length === 1 && day === undefined;
const isDay = ({ months, day }: Moment): boolean => months?.length === 1 && day !== undefined;
const isWeekday = ({ weekday }: Moment): boolean => weekday !== undefined;

const monthsFrom = (first: number, last: number): number => (last - first + 12) % 12;

/** So many months from one to another: 'from November to March' is four, or five with both. */
export function fromMonthToMonth(figure: Quantity, _: Clause, { clauses }: Reckoning): boolean {
  return clauses.some((held) =>
    spansOf(held, isMonth).some(({ first, last }) => {
      const months = monthsFrom(first.months![0]!, last.months![0]!);
      return [months, months + 1].some(
        (n) =>
          n > 0 &&
          figure.means.some(({ dimension, value }) => dimension === 'time' && isAbout(value, n * MONTH, figure)),
      );
    }),
  );
}

const isAbout = (value: number, other: number, figure: Quantity) =>
  near(value, other, figure, { says: 'exactly' }, 0.01);

const CLOSED = setOf('closed shut geschlossen ruhetag ruhetage');
/** A date behind or beside these is where something begins or ends. */
const ENDS = setOf(
  'from since until till by before after begins began begin starts start started ends end ended closes closing opens opened runs ran lasts vom ab seit bis vor nach beginnt begann endet endete schließt öffnet läuft lief dauert',
);
const DAILY =
  /\b(?:every day|seven days a week|daily|all week|täglich|jeden Tag|an allen Tagen|sieben Tage (?:die|in der) Woche)\b/i;

/** Says that something is shut, or does not happen. */
const isShut = (clause: Clause): boolean => (clause.has(CLOSED) || endsShut(clause)) !== clause.denies;

/** '… bleibt der Salon zu'. */
const endsShut = ({ tokens, language }: Clause): boolean =>
  language === 'de' && tokens.findLast(({ kind }) => kind === 'word')?.lower === 'zu';

/**
 * A date that no source names and that lies in a span one names, or outside of it where it is said to be shut: 'in
 * December' of what lasts from November to February, 'closed on Mondays' of what opens Tuesday to Sunday.
 */
export const isInSpan = (moment: Moment, said: Clause, { clauses }: Reckoning): boolean =>
  // A day may be where something begins or ends, or what a time of day is told of; a month by itself hardly is.
  (isMonth(moment) || (said.facts.moments.length === 1 && !said.has(ENDS))) &&
  clauses.some((held) => {
    const within = withinOf(moment, held);
    if (within === null) return false;
    return (held.has(CLOSED) || endsShut(held)) === isShut(said) ? within : !within;
  });

/** Whether a date lies in the spans of a clause; null where it names none of its sort. */
function withinOf(moment: Moment, held: Clause): boolean | null {
  const { months, day, year, weekday } = moment;
  if (weekday !== undefined) {
    if (DAILY.test(held.sentence.text) && held.sentence.clauses[0] === held) return true;
    const spans = spansOf(held, isWeekday);
    return spans.length === 0 ? null : spans.some(({ first, last }) => isFrom(weekday, first.weekday!, last.weekday!));
  }
  if (months?.length !== 1 || year !== undefined) return null;
  const [month] = months as [number];
  const whole = spansOf(held, isMonth);
  if (whole.length > 0) return whole.some(({ first, last }) => isFrom(month, first.months![0]!, last.months![0]!));
  const days = spansOf(held, isDay);
  if (days.length === 0) return null;
  const place = (of: Pick<Moment, 'months' | 'day'>) => of.months![0]! * DAYS + (of.day ?? 0);
  return days.some(({ first, last }) =>
    day === undefined
      ? isFrom(month, first.months![0]!, last.months![0]!)
      : isFrom(place(moment), place(first), place(last)),
  );
}

/** More than a month has. */
const DAYS = 32;

/** Whether something lies between two places of a circle. */
const isFrom = (one: number, first: number, last: number): boolean =>
  first <= last ? first <= one && one <= last : one >= first || one <= last;
