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
const step = {
  ...stepKinds.check.fresh('s1'),
  words: { from: 1, to: 100 },
  likeness: null,
  own: null,
  otherwise: 'set it aside' as const,
};

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

describe('what is too like others', () => {
  const text = 'Weigh 20 grams of salt for a kilo of cabbage and wait 9 days.';
  const sources = [{ id: 'p1', text: `First this. ${text}` }];
  const ours = [{ id: 'a1', title: 'Salt, once more', text }];

  test('fails by its sources and by our own articles, each with its figure, and only where it is looked at', () => {
    const open = { ...step, figures: false, likeness: 30, own: 25 };
    expect(failingRules(open, article, sources, ours)).toEqual([
      '100 % stands in the sources word for word, less than 30 % is wanted',
      '100 % stands word for word in other articles of ours, most of it in ‘Salt, once more’; less than 25 % is wanted',
    ]);
    expect(failingRules({ ...open, likeness: null, own: null }, article, sources, ours)).toEqual([]);
    expect(failingRules(open, article, [{ id: 'p1', text: 'Something else about salt.' }], [])).toEqual([]);
  });

  test('does not count what is quoted on purpose', () => {
    const quoted = { ...article, body: [{ type: 'quote' as const, id: 'q1', content: [{ text }] }] };
    expect(
      failingRules(
        { ...step, figures: false, likeness: 30, own: 25, words: { from: 0, to: 100 } },
        quoted,
        sources,
        ours,
      ),
    ).toEqual([]);
  });
});
