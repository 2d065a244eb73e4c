import { Temporal } from 'temporal-polyfill';
import type { CadenceRule } from './rule.ts';

const MINUTE = 60_000;
/** Slots are looked for this far ahead; a rule that makes none in two years makes none. */
const HORIZON_DAYS = 731;

/** Moments are milliseconds since 1970 throughout. */
export type Moment = number;

/**
 * The slots of a rule from `from` on, ascending, endless until the horizon of two years.
 *
 * A day's slots lie in its window of local hours. A count spreads evenly over the permitted days of its day, week
 * (Monday to Sunday) or month, and within a day evenly over the window, the first at its opening. 'Every' counts real
 * time from the slot before, over days too; a moment outside the hours moves to the next opening. Local times the spring change leaves out move behind it; those the autumn change makes
 * twice are taken once, the first time. A slot nearer than the gap to the one before moves to where the gap ends if that
 * is still in its window, and falls away otherwise.
 */
export function* slotsFrom(rule: CadenceRule, from: Moment): Generator<Moment> {
  if (rule.rate.kind === 'every') {
    yield* everyFrom(rule, from);
    return;
  }
  const zoned = Temporal.Instant.fromEpochMilliseconds(from).toZonedDateTimeISO(rule.zone);
  const start = Temporal.PlainDate.from(rule.start);
  // Begin whole periods earlier, so that spreading and gaps come out the same from wherever one looks.
  let day = laterOf(
    periodStart(rule, zoned.toPlainDate().subtract({ days: 1 + Math.ceil(rule.gapMinutes / 1_440) })),
    periodStart(rule, start),
  );
  const end = zoned.toPlainDate().add({ days: HORIZON_DAYS });
  const known = periodsOf(rule);
  let last = Number.NEGATIVE_INFINITY;
  while (Temporal.PlainDate.compare(day, end) < 0) {
    const { next, slots } = periodOf(known, rule, day);
    for (const slot of slots) {
      const moved = Math.max(slot.at, last + rule.gapMinutes * MINUTE);
      if (moved > slot.closes || moved === last) continue;
      last = moved;
      if (moved >= from) yield moved;
    }
    day = next;
  }
}

/** The slots in `[from, to)`. */
export function slotsBetween(rule: CadenceRule, from: Moment, to: Moment): Moment[] {
  const out: Moment[] = [];
  for (const slot of slotsFrom(rule, from)) {
    if (slot >= to) break;
    out.push(slot);
  }
  return out;
}

interface Candidate {
  at: Moment;
  /** Last moment the window of its day allows. */
  closes: Moment;
}

function laterOf(a: Temporal.PlainDate, b: Temporal.PlainDate): Temporal.PlainDate {
  return Temporal.PlainDate.compare(a, b) >= 0 ? a : b;
}

function periodStart(rule: CadenceRule, day: Temporal.PlainDate): Temporal.PlainDate {
  if (rule.rate.kind === 'every' || rule.rate.per === 'day') return day;
  return rule.rate.per === 'week' ? day.subtract({ days: day.dayOfWeek - 1 }) : day.with({ day: 1 });
}

function nextPeriod(rule: CadenceRule, start: Temporal.PlainDate): Temporal.PlainDate {
  if (rule.rate.kind === 'every' || rule.rate.per === 'day') return start.add({ days: 1 });
  return rule.rate.per === 'week' ? start.add({ weeks: 1 }) : start.add({ months: 1 });
}

/** A period of a rule: what follows it, and its candidates. */
interface Period {
  next: Temporal.PlainDate;
  slots: readonly Candidate[];
}

/**
 * Periods of rules by their first day, worked out once: the same weeks are looked at by every page, and the reckoning with
 * local times was nine tenths of the work of showing them.
 */
const periods = new Map<string, Map<string, Period>>();

function periodsOf(rule: CadenceRule): Map<string, Period> {
  return remembered(periods, JSON.stringify(rule), () => new Map());
}

function periodOf(known: Map<string, Period>, rule: CadenceRule, day: Temporal.PlainDate): Period {
  const key = day.toString();
  let period = known.get(key);
  if (!period) {
    const next = nextPeriod(rule, day);
    period = { next, slots: periodSlots(rule, day, next) };
    known.set(key, period);
  }
  return period;
}

/** What is remembered of a rule; of many rules those met first are forgotten. */
function remembered<T>(known: Map<string, T>, key: string, make: () => T): T {
  let found = known.get(key);
  if (found === undefined) {
    if (known.size >= MOST_RULES) known.delete(known.keys().next().value!);
    found = make();
    known.set(key, found);
  }
  return found;
}

/** Candidates of one period. The period's quota is spread over all its permitted days; days before the start or in a pause then lose theirs. */
function periodSlots(rule: CadenceRule, from: Temporal.PlainDate, to: Temporal.PlainDate): Candidate[] {
  const days: Temporal.PlainDate[] = [];
  for (let day = from; Temporal.PlainDate.compare(day, to) < 0; day = day.add({ days: 1 })) {
    if (rule.days.includes(day.dayOfWeek)) days.push(day);
  }
  return share(days, rule.rate.n).flatMap(({ day, n }) => (isOpen(rule, day) ? spreadInDay(rule, day, n) : []));
}

function isOpen(rule: CadenceRule, day: Temporal.PlainDate): boolean {
  const iso = day.toString();
  return iso >= rule.start && !rule.pauses.some((pause) => iso >= pause.from && iso <= pause.to);
}

/** n things over the days: evenly parted when there are fewer things than days, otherwise as equal as can be. */
function share(days: readonly Temporal.PlainDate[], n: number): { day: Temporal.PlainDate; n: number }[] {
  const counts = new Map<number, number>();
  for (let i = 0; i < n; i++) {
    const at = Math.floor((i * days.length) / n);
    counts.set(at, (counts.get(at) ?? 0) + 1);
  }
  return [...counts]
    .sort(([a], [b]) => a - b)
    .flatMap(([at, count]) => (days[at] ? [{ day: days[at], n: count }] : []));
}

function windowOf(rule: CadenceRule, day: Temporal.PlainDate): { opens: Moment; closes: Moment } {
  const opens = localMoment(rule.zone, day, rule.hours.from);
  if (rule.hours.from === rule.hours.to) return { opens, closes: opens };
  const nextDay = rule.hours.to <= rule.hours.from ? day.add({ days: 1 }) : day;
  return { opens, closes: localMoment(rule.zone, nextDay, rule.hours.to) - 1 };
}

function localMoment(zone: string, day: Temporal.PlainDate, clock: string): Moment {
  const on = clock === '24:00' ? day.add({ days: 1 }) : day;
  const time = Temporal.PlainTime.from(clock === '24:00' ? '00:00' : clock);
  return on.toPlainDateTime(time).toZonedDateTime(zone, { disambiguation: 'compatible' }).epochMilliseconds;
}

/** n local times evenly from the opening; each is turned into a moment by itself, so it keeps its place on the clock over a change. */
function spreadInDay(rule: CadenceRule, day: Temporal.PlainDate, n: number): Candidate[] {
  const { opens, closes } = windowOf(rule, day);
  const openMinute = minuteOf(rule.hours.from);
  let span = minuteOf(rule.hours.to) - openMinute;
  if (span < 0) span += 1_440;
  const out: Candidate[] = [];
  for (let i = 0; i < n; i++) {
    const minute = openMinute + Math.floor((i * span) / n);
    const on = day.add({ days: Math.floor(minute / 1_440) });
    const clock = `${String(Math.floor((minute % 1_440) / 60)).padStart(2, '0')}:${String(minute % 60).padStart(2, '0')}`;
    out.push({ at: Math.max(opens, localMoment(rule.zone, on, clock)), closes });
  }
  return out.sort((a, b) => a.at - b.at);
}

/** Days after which a rule that counts on without end remembers where it stood. */
const REMEMBERED_DAYS = 28;
/** Rules remembered at once. */
const MOST_RULES = 200;
/** Where rules that count on stood at the beginning of days, the last slot before each: worked out once from their start. */
const stands = new Map<string, { day: Temporal.PlainDate; last: Moment }[]>();

/** Slots that follow each other in real time, whatever days they lie on. */
function* everyFrom(rule: CadenceRule, from: Moment): Generator<Moment> {
  const { rate } = rule;
  if (rate.kind !== 'every') return;
  const step = Math.max(rate.n * (rate.unit === 'hours' ? 60 : 1), rule.gapMinutes) * MINUTE;
  const today = Temporal.Instant.fromEpochMilliseconds(from).toZonedDateTimeISO(rule.zone).toPlainDate();
  const end = today.add({ days: HORIZON_DAYS });
  const known = standsOf(rule);
  const before = today.subtract({ days: 1 });
  const begin = known.findLast(({ day }) => Temporal.PlainDate.compare(day, before) <= 0) ?? known[0]!;
  let { day, last } = begin;
  for (let n = 0; Temporal.PlainDate.compare(day, end) < 0; day = day.add({ days: 1 }), n++) {
    const reached = known.at(-1)!.day;
    if (n > 0 && n % REMEMBERED_DAYS === 0 && Temporal.PlainDate.compare(day, reached) > 0) known.push({ day, last });
    if (!rule.days.includes(day.dayOfWeek) || !isOpen(rule, day)) continue;
    const { opens, closes } = windowOf(rule, day);
    for (let at = Math.max(opens, last + step); at <= closes; at += step) {
      last = at;
      if (at >= from) yield at;
    }
  }
}

function standsOf(rule: CadenceRule): { day: Temporal.PlainDate; last: Moment }[] {
  return remembered(stands, JSON.stringify(rule), () => [
    { day: Temporal.PlainDate.from(rule.start), last: Number.NEGATIVE_INFINITY },
  ]);
}

function minuteOf(clock: string): number {
  const [hours, minutes] = clock.split(':');
  return Number(hours) * 60 + Number(minutes);
}
