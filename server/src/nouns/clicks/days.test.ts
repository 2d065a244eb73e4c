import { expect, test } from 'vitest';
import { dayIn, daysUntil } from './days.ts';

test('a moment is on the day that a blog’s clocks say', () => {
  const moment = Date.parse('2026-05-31T22:30:00Z');
  expect(dayIn(moment, 'UTC')).toBe('2026-05-31');
  expect(dayIn(moment, 'Europe/Dublin')).toBe('2026-05-31');
  expect(dayIn(moment, 'Europe/Berlin')).toBe('2026-06-01');
  expect(dayIn(moment, 'America/New_York')).toBe('2026-05-31');
});

test('days are counted back over months and leap days', () => {
  expect(daysUntil('2028-03-02', 4)).toEqual(['2028-02-28', '2028-02-29', '2028-03-01', '2028-03-02']);
  expect(daysUntil('2026-01-01', 1)).toEqual(['2026-01-01']);
});
