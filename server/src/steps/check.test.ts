import { EMPTY_ARTICLE, stepKinds } from '@grivo/core';
import { expect, test } from 'vitest';
import { failingRules } from './check.ts';

const article = {
  ...EMPTY_ARTICLE,
  title: 'Salt',
  body: [
    {
      type: 'paragraph' as const,
      id: 'b1',
      content: [{ text: 'Weigh 20 grams of salt for a kilo of cabbage and wait 9 days.' }],
    },
  ],
};
const step = { ...stepKinds.check.fresh('s1'), words: { from: 1, to: 100 } };

test('figures no source holds fail the check when it asks for them, and only then', () => {
  const sources = [{ id: 'p1', text: 'Twenty, that is 20 grams a kilo.' }];
  expect(failingRules({ ...step, figures: true }, article, sources)).toEqual(['no passage holds the figures 9']);
  expect(failingRules({ ...step, figures: false }, article, sources)).toEqual([]);
  expect(failingRules({ ...step, figures: true }, article, [...sources, { id: 'p2', text: 'Nine days, 9.' }])).toEqual(
    [],
  );
});
