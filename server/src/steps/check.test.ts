import { EMPTY_ARTICLE, stepKinds } from '@grivo/core';
import { describe, expect, test } from 'vitest';
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
  const sources = [{ id: 'p1', text: 'Twenty, that is 20 grams of salt for a kilo.' }];
  expect(failingRules({ ...step, figures: true }, article, sources)).toEqual(['‘9 days’ stands in no source']);
  expect(failingRules({ ...step, figures: false }, article, sources)).toEqual([]);
  expect(failingRules({ ...step, figures: true }, article, [...sources, { id: 'p2', text: 'Nine days, 9.' }])).toEqual(
    [],
  );
});

describe('what is less sure than a figure', () => {
  const sources = [{ id: 'p1', text: 'Salt does not dissolve in oil. It dissolves in water at once.' }];
  const turned = {
    ...EMPTY_ARTICLE,
    title: 'Salt',
    body: [{ type: 'paragraph' as const, id: 'b1', content: [{ text: 'Salt dissolves in oil.' }] }],
  };

  test('counts where somebody decides what becomes of the article', () => {
    const held = { ...step, figures: true, otherwise: 'hold it for me' as const };
    expect(failingRules(held, turned, sources)).toEqual([
      expect.stringContaining('the source says the opposite of ‘Salt dissolves in oil') as string,
    ]);
  });

  test('does not set aside what nobody looks at', () => {
    expect(failingRules({ ...step, figures: true, otherwise: 'set it aside' }, turned, sources)).toEqual([]);
  });

  test('a figure does, either way', () => {
    const wrong = { ...turned, body: [{ ...turned.body[0]!, content: [{ text: 'Salt melts at 412 degrees.' }] }] };
    for (const otherwise of ['set it aside', 'hold it for me'] as const)
      expect(failingRules({ ...step, figures: true, otherwise }, wrong, sources)).toEqual([
        '‘412 degrees’ stands in no source',
      ]);
  });
});
