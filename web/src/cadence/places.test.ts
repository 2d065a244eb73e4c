import { describe, expect, test } from 'vitest';
import { placesOf } from './places.ts';
import { DAY } from './useMover.ts';

const FROM = Date.UTC(2026, 10, 23);
const at = (day: number, hour: number) => FROM + day * DAY + hour * 3_600_000;

describe('where moments are in a chart that begins on a Monday', () => {
  const places = placesOf({ zone: 'UTC' }, { from: '08:00', to: '10:00' }, FROM);

  test('days are columns, however late in the day', () => {
    expect([at(0, 0), at(0, 23), at(1, 8), at(27, 23)].map(places.column)).toEqual([0, 0, 1, 27]);
    expect(places.left(at(0, 9))).toBe(`${(0.5 / 28) * 100}%`);
    expect(places.x(at(14, 0))).toBe(50);
  });

  test('the first hour above, the last below; what lies outside stays close', () => {
    const [opens, middle, closes] = [8, 9, 10].map((hour) => places.y(at(0, hour)));
    expect([middle! - opens!, closes! - middle!]).toEqual([21, 21]);
    const [night, evening] = [places.y(at(0, 0)), places.y(at(0, 23))];
    expect([opens! - night, evening - closes!]).toEqual([6, 20]);
  });

  test('hours are those of the blog’s own zone', () => {
    const berlin = placesOf({ zone: 'Europe/Berlin' }, { from: '08:00', to: '10:00' }, FROM);
    expect(berlin.y(at(0, 7))).toBe(places.y(at(0, 8)));
  });

  test('hours that are one and the same give no division by nothing', () => {
    const one = placesOf({ zone: 'UTC' }, { from: '09:00', to: '09:00' }, FROM);
    expect(Number.isFinite(one.y(at(0, 12)))).toBe(true);
    expect(Number.isFinite(placesOf({ zone: 'UTC' }, undefined, FROM).y(at(0, 9)))).toBe(true);
  });
});
