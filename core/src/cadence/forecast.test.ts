import { expect, test } from 'vitest';
import { dryFrom, forecast } from './forecast.ts';
import { CadenceRule } from './rule.ts';

const RULE = CadenceRule.parse({
  rate: { kind: 'count', n: 1, per: 'day' },
  days: [1, 2, 3, 4, 5, 6, 7],
  hours: { from: '08:00', to: '10:00' },
  gapMinutes: 120,
  start: '2026-01-01',
  zone: 'UTC',
});
const at = (text: string) => Date.parse(text);
const WINDOW = { now: at('2026-05-04T06:00:00Z'), from: at('2026-05-04T00:00:00Z'), to: at('2026-05-09T00:00:00Z') };

test('what is being made takes the free slots in order; the rest stay empty and say from when the blog is dry', () => {
  const slots = forecast(RULE, [{ at: at('2026-05-05T08:00:00Z'), title: 'placed' }], ['a', 'b'], WINDOW);
  expect(slots.map((slot) => slot.firm?.title ?? slot.foreseen)).toEqual(['a', 'placed', 'b', null, null]);
  expect(dryFrom(slots)).toBe(at('2026-05-07T08:00:00Z'));
});

test('an article put off the slots by hand stands at its moment and keeps its neighbours at the gap', () => {
  const slots = forecast(RULE, [{ at: at('2026-05-05T07:00:00Z') }], ['a'], WINDOW);
  expect(slots.map((slot) => new Date(slot.at).toISOString().slice(8, 16))).toEqual([
    '04T08:00',
    '05T07:00',
    '06T08:00',
    '07T08:00',
    '08T08:00',
  ]);
});

test('nothing is foreseen in the past, and firm ones out of the window are left out', () => {
  const late = { ...WINDOW, now: at('2026-05-06T12:00:00Z') };
  const slots = forecast(RULE, [{ at: at('2026-05-01T08:00:00Z') }, { at: at('2026-05-05T08:00:00Z') }], ['a'], late);
  expect(slots.map((slot) => slot.foreseen)).toEqual([null, 'a', null]);
  expect(dryFrom([])).toBeNull();
});
