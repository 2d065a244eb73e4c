import { expect, test } from 'vitest';
import { firstIdAt, makeIds } from './id.ts';

test('ids ascend within a millisecond, over milliseconds and when the clock steps back', () => {
  let now = 1_700_000_000_000;
  const next = makeIds(
    () => now,
    () => 0.999,
  );
  const made = Array.from({ length: 2_000 }, (_, i) => {
    if (i === 500) now += 3;
    if (i === 900) now -= 60_000;
    return next();
  });
  expect(new Set(made).size).toBe(2_000);
  expect([...made].sort()).toEqual(made);
  expect(made.every((id) => /^[0-9a-hjkmnp-tv-z]{20}$/.test(id))).toBe(true);
});

test('the first id of a moment sorts below every id made then and above those made before', () => {
  const at = (ms: number) =>
    makeIds(
      () => ms,
      () => 0,
    )();
  expect(firstIdAt(5_000) <= at(5_000)).toBe(true);
  expect(firstIdAt(5_000) > at(4_999)).toBe(true);
});
