import { expect, test } from 'vitest';
import { webAddress } from './address.ts';
import { amount, atColon, exact, money, plural } from './figures.ts';
import { clockFrom, dayShort, moment, sameDay, span, took } from './time.ts';

test('what was entered is shown as it was entered', () => {
  expect([exact(2_500), exact(40_000_000), exact(1_250_000), exact(1)]).toEqual([
    '0.0025 €',
    '40.00 €',
    '1.25 €',
    '0.000001 €',
  ]);
});

test('money keeps what is cheap from looking free', () => {
  expect([money(610_000), amount(4_000), amount(0), money(12_345_678)]).toEqual(['0.61 €', '0.004', '0.00', '12.35 €']);
});

test('moments are said by the day they fall on in the zone asked for', () => {
  const at = Date.parse('2026-11-25T23:30:00Z');
  expect(moment(at, Date.parse('2026-11-25T08:00:00Z'), 'UTC')).toBe('today 23:30');
  expect(moment(at, Date.parse('2026-11-25T08:00:00Z'), 'Europe/Berlin')).toBe('Thu 26 Nov 00:30');
  expect(dayShort(at, 'UTC')).toBe('Wed 25');
  expect(sameDay(at, at + 3_600_000, 'UTC')).toBe(false);
});

test('spans and durations', () => {
  expect([span(500_000), span(30_000_000), span(4 * 86_400_000)]).toEqual(['8 min', '8 h 20 min', '4 days']);
  expect([took(24), took(11_000), took(112_000)]).toEqual(['20 ms', '11 s', '1 m 52']);
});

test('titles stop at their colon, counts at their noun', () => {
  expect([atColon('How much salt: 2 or 3'), atColon('Salt: how')]).toEqual(['How much salt', 'Salt: how']);
  expect([plural(1, 'brief'), plural(1_200, 'brief')]).toEqual(['1 brief', '1,200 briefs']);
});

test.each([
  ['8', '08:00'],
  ['8:30', '08:30'],
  ['08.30', '08:30'],
  ['1630', '16:30'],
  ['4 pm', '16:00'],
  ['12 am', '00:00'],
  ['12:15pm', '12:15'],
  ['noon', '12:00'],
  ['24', '24:00'],
  ['24:30', null],
  ['13 pm', null],
  ['soon', null],
])('a time typed as %s is %s', (typed, read) => {
  expect(clockFrom(typed)).toBe(read);
});

test('an address is read without its beginning', () => {
  expect(webAddress(' wheels.example/shop ')).toBe('https://wheels.example/shop');
  expect(webAddress('http://wheels.example')).toBe('http://wheels.example');
  expect(webAddress('')).toBe('');
});
