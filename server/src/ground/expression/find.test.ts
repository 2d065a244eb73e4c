import { expect, test } from 'vitest';
import { findPattern } from './find.ts';

test('finds the first place or all, with groups', () => {
  expect(findPattern('(\\d)(x)?', 'a1 b2x', true)).toEqual({
    ok: true,
    matches: [
      ['1', '1', ''],
      ['2x', '2', 'x'],
    ],
  });
  expect(findPattern('\\d', 'a1 b2', false)).toEqual({ ok: true, matches: [['1']] });
});

test('a pattern that runs away is cut off, one that is none is told', () => {
  expect(findPattern('(a+)+$', `${'a'.repeat(40)}!`, true)).toEqual({
    ok: false,
    problem: 'the pattern ‘(a+)+$’ took too long on this text',
  });
  expect(findPattern('(', 'x', true)).toMatchObject({
    ok: false,
    problem: expect.stringMatching(/is no pattern/) as string,
  });
  expect(findPattern('x'.repeat(600), 'x', true).ok).toBe(false);
  expect(findPattern('x', 'x'.repeat(300_000), true).ok).toBe(false);
});
