import { expect, test } from 'vitest';
import { runsOf } from './order.ts';

test('runs of a line stand as the Unicode algorithm orders them', () => {
  expect(runsOf('salt', false)).toEqual([{ text: 'salt', fromRight: false }]);
  // Standard Annex 9, figures keep their order within text from the right.
  expect(runsOf('מלח 25 גרם', true)).toEqual([
    { text: ' גרם', fromRight: true },
    { text: '25', fromRight: false },
    { text: 'מלח ', fromRight: true },
  ]);
  expect(runsOf('see מלח now', false).map(({ text }) => text)).toEqual(['see ', 'מלח', ' now']);
});

test('brackets of text from the right are turned', () => {
  expect(runsOf('(מלח)', true)).toEqual([{ text: ')מלח(', fromRight: true }]);
});
