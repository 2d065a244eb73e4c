import { expect, test } from 'vitest';
import { lines } from '../testing/corpus.ts';
import { shortfall, shortfallWords } from './kept.ts';
import { nextFreeSlot, placementFaults, reflow } from './placement.ts';
import { CadenceRule, cadenceSentence } from './rule.ts';
import { slotsBetween } from './slots.ts';

const WEEK = [1, 2, 3, 4, 5, 6, 7];
const rule = (change: object): CadenceRule =>
  CadenceRule.parse({
    rate: { kind: 'count', n: 1, per: 'day' },
    days: WEEK,
    hours: { from: '09:00', to: '17:00' },
    gapMinutes: 0,
    start: '2026-03-20',
    zone: 'Europe/Dublin',
    ...change,
  });

const RULES: CadenceRule[] = [
  rule({}),
  rule({ rate: { kind: 'count', n: 3, per: 'day' } }),
  rule({ rate: { kind: 'count', n: 5, per: 'week' }, days: [1, 3, 5] }),
  rule({ rate: { kind: 'count', n: 2, per: 'week' }, days: [2, 4], gapMinutes: 2_880 }),
  rule({ rate: { kind: 'count', n: 10, per: 'month' } }),
  rule({ rate: { kind: 'count', n: 1, per: 'month' }, days: [1] }),
  rule({ rate: { kind: 'every', n: 90, unit: 'minutes' } }),
  rule({ rate: { kind: 'every', n: 1, unit: 'hours' }, days: [6, 7], hours: { from: '00:30', to: '04:30' } }),
  rule({ rate: { kind: 'every', n: 5, unit: 'hours' }, zone: 'America/New_York' }),
  rule({
    rate: { kind: 'every', n: 1_440, unit: 'minutes' },
    hours: { from: '02:30', to: '02:30' },
    zone: 'Europe/Berlin',
  }),
  rule({ rate: { kind: 'count', n: 96, per: 'day' }, gapMinutes: 60 }),
  rule({ rate: { kind: 'count', n: 4, per: 'day' }, gapMinutes: 95, hours: { from: '10:00', to: '12:00' } }),
  rule({
    pauses: [
      { from: '2026-03-24', to: '2026-03-26' },
      { from: '2026-03-30', to: '2026-03-30' },
    ],
  }),
  rule({ hours: { from: '23:00', to: '23:59' }, zone: 'Asia/Kathmandu', rate: { kind: 'count', n: 2, per: 'day' } }),
  rule({ days: [7, 1], hours: { from: '12:00', to: '12:00' } }),
  rule({ days: [5, 6, 7], rate: { kind: 'count', n: 7, per: 'week' }, start: '2026-03-28' }),
];

const FROM = Date.UTC(2026, 2, 18);
const TO = Date.UTC(2026, 3, 20);
const told = (at: number | null) => (at === null ? 'none' : new Date(at).toISOString().slice(5, 16));

test('rules in words, what they cannot keep, and their slots over a change of the clock', async () => {
  const all = RULES.flatMap((own) => {
    const slots = slotsBetween(own, FROM, TO);
    const taken = (from: number, to: number) => slots.slice(from, to).map((at) => ({ at }));
    return [
      `= ${cadenceSentence(own)}`,
      `  ${JSON.stringify(shortfall(own))} ${shortfallWords(own) ?? 'kept'}`,
      `  ${slots.length}: ${slots.slice(0, 60).map(told).join(' ')}`,
      `  free: ${told(nextFreeSlot(own, taken(0, 3), FROM))} ${told(nextFreeSlot(own, taken(1, 4), slots[5] ?? FROM))}`,
    ];
  });
  await expect(lines(all)).toMatchFileSnapshot('listed/rules.txt');
});

test('what is placed again when a rule changes, and what a moment breaks', async () => {
  const placed = slotsBetween(RULES[0]!, FROM, TO)
    .slice(0, 9)
    .map((at, i) => ({ article: `a${i}`, at, pinned: i % 4 === 3 }));
  const all = RULES.map((own, n) => {
    const moved = reflow(own, placed, placed[1]!.at).map(({ article, at }) => `${article} ${told(at)}`);
    const slots = slotsBetween(own, FROM, TO);
    const faults = [0, 30, 60, 95, 2_880].map((minutes) =>
      placementFaults(own, placed, placed[4]!.at + minutes * 60_000, slots).join('; '),
    );
    return `${n}: ${moved.join(', ')} | ${faults.join(' | ')}`;
  });
  await expect(lines(all)).toMatchFileSnapshot('listed/placed.txt');
});
