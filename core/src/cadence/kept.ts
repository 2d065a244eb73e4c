import type { CadenceRule } from './rule.ts';
import { slotsBetween } from './slots.ts';

const DAY = 86_400_000;
const LENGTH = { day: 28 * DAY, week: 28 * DAY, month: 365 * DAY } as const;
const PERIODS = { day: 28, week: 4, month: 12 } as const;

/**
 * How far a rule that asks for so many a day, week or month can be kept, pauses and its start aside.
 * @returns what is asked for and what its days, hours and gap leave in a period on average; null where it is kept
 */
export function shortfall(rule: CadenceRule): { asked: number; kept: number; per: 'day' | 'week' | 'month' } | null {
  const { rate } = rule;
  if (rate.kind !== 'count') return null;
  // A Monday, and the first of a year that has the usual number of days.
  const from = Date.parse(rate.per === 'month' ? '2023-01-01T00:00:00Z' : '2023-01-02T00:00:00Z');
  const plain: CadenceRule = { ...rule, start: '2022-12-01', pauses: [], zone: 'UTC' };
  const slots = slotsBetween(plain, from, from + LENGTH[rate.per]).length;
  const asked = rate.per === 'day' ? (rate.n * PERIODS.day * rule.days.length) / 7 : rate.n * PERIODS[rate.per];
  if (slots >= asked) return null;
  const periods = rate.per === 'day' ? (PERIODS.day * rule.days.length) / 7 : PERIODS[rate.per];
  return { asked: rate.n, kept: Math.round((slots / periods) * 10) / 10, per: rate.per };
}

/** The same in words, with what would mend it; null where the rule is kept. */
export function shortfallWords(rule: CadenceRule): string | null {
  const short = shortfall(rule);
  if (!short) return null;
  const kept = short.kept.toLocaleString('en-GB');
  return `It asks for ${short.asked} a ${short.per}; its days, hours and gap leave ${kept}. Ask for fewer, open more days or hours, or shorten the time between two.`;
}
