import { z } from 'zod';

const Clock = z.string().regex(/^(?:[01]\d|2[0-3]):[0-5]\d$|^24:00$/, 'a time as 08:30');
const Day = z.string().regex(/^\d{4}-\d\d-\d\d$/, 'a day as 2026-11-25');

/** By the platform's own list: what reckons slots is large, and every screen knows this schema. */
function knownZone(zone: string): boolean {
  try {
    new Intl.DateTimeFormat('en', { timeZone: zone });
    return true;
  } catch (error) {
    if (error instanceof RangeError) return false;
    throw error;
  }
}

/** The rule that makes a blog's slots. */
export const CadenceRule = z.strictObject({
  /** `count`: so many a day, week or month. `every`: one each so many minutes or hours. */
  rate: z.discriminatedUnion('kind', [
    z.strictObject({ kind: z.literal('count'), n: z.int().min(1).max(96), per: z.enum(['day', 'week', 'month']) }),
    z.strictObject({ kind: z.literal('every'), n: z.int().min(1).max(1_440), unit: z.enum(['minutes', 'hours']) }),
  ]),
  /** ISO weekdays, 1 Monday to 7 Sunday. */
  days: z.array(z.int().min(1).max(7)).min(1).max(7),
  /** Local times; publishing begins at `from` and ends before `to` (at `to`, when both are equal). */
  hours: z.strictObject({ from: Clock, to: Clock }),
  /** Real minutes between any two posts, also over a change of the clock. */
  gapMinutes: z
    .int()
    .min(0)
    .max(60 * 24 * 31),
  /** First day with slots. */
  start: Day,
  /** Days without slots, ends included. */
  pauses: z
    .array(z.strictObject({ from: Day, to: Day }))
    .max(50)
    .default([]),
  zone: z.string().refine(knownZone, 'a time zone as Europe/Dublin'),
});
export type CadenceRule = z.infer<typeof CadenceRule>;

const DAY_NAMES = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];

/** The rule as the sentence people read and change. */
export function cadenceSentence(rule: CadenceRule): string {
  const { rate } = rule;
  const often =
    rate.kind === 'count'
      ? `${rate.n} a ${rate.per}`
      : `one every ${rate.n} ${rate.n === 1 ? rate.unit.slice(0, -1) : rate.unit}`;
  const gap =
    rule.gapMinutes === 0
      ? ''
      : `, at least ${rule.gapMinutes % 60 === 0 ? `${rule.gapMinutes / 60} h` : `${rule.gapMinutes} min`} apart`;
  const days = daysWords(rule.days);
  const pauses = rule.pauses.map(({ from, to }) => (from === to ? from : `${from} to ${to}`)).join(', ');
  return `${often}, ${days} between ${rule.hours.from} and ${rule.hours.to} ${rule.zone}${gap}${pauses === '' ? '' : `, but not ${pauses}`}`;
}

function daysWords(days: readonly number[]): string {
  const sorted = [...new Set(days)].sort((a, b) => a - b);
  if (sorted.length === 7) return 'every day';
  const run = sorted.every((day, i) => i === 0 || day === sorted[i - 1]! + 1);
  if (run && sorted.length > 2) return `${DAY_NAMES[sorted[0]! - 1]} to ${DAY_NAMES[sorted[sorted.length - 1]! - 1]}`;
  return sorted.map((day) => DAY_NAMES[day - 1]).join(', ');
}
