import { expect, test } from 'vitest';
import type { ArticleDocument, Block } from './block.ts';
import { likeMeasures } from './likeMeasures.ts';
import { NOTHING_BESIDE } from './measure.ts';

const p = (id: string, text: string): Block => ({ type: 'paragraph', id, content: [{ text }] });
const article = (...body: Block[]): Pick<ArticleDocument, 'body' | 'language'> => ({ body, language: 'en' });
const SOURCES = [{ id: 'm:1', text: 'A bow wants fresh rosin before every hour of playing, and a cloth after it.' }];

test('of a hundred words those are counted that stand there five in a row', () => {
  const [found] = likeMeasures(
    article(
      p('b1', 'Loosen the hair when you are done with it.'),
      p('b2', 'Every player knows that a bow wants fresh rosin now.'),
    ),
    SOURCES,
    NOTHING_BESIDE,
  );
  // Nine words and ten, of which ‘a bow wants fresh rosin’ stands there.
  expect(found).toEqual({
    name: 'Likeness to the sources',
    value: 26.3,
    least: null,
    most: null,
    unit: '%',
    says: '5 of 19 words stand in them, five in a row and more',
    place: 'b2',
  });
});

test('what is quoted and what the house puts there count for nothing, and its limit is that of the check', () => {
  const copied = SOURCES[0]!.text;
  const [found] = likeMeasures(
    article(
      { type: 'quote', id: 'b1', content: [{ text: copied }] },
      { type: 'standing text', id: 'b2', content: [{ text: copied }] },
      p('b3', 'Loosen it afterwards.'),
    ),
    SOURCES,
    { ...NOTHING_BESIDE, most: { sources: 30, own: 25 } },
  );
  expect(found).toMatchObject({ value: 0, most: 30, says: 'no five words in a row stand there', place: null });
});

test('it is held against our own articles where some say the same, by name', () => {
  const beside = (...titles: string[]) => ({
    ...NOTHING_BESIDE,
    own: titles.map((title) => ({ title, text: SOURCES[0]!.text })),
  });
  const copy = article(p('b1', SOURCES[0]!.text));
  expect(likeMeasures(copy, [], beside('Rosin'))).toMatchObject([
    { name: 'Likeness to our articles', value: 100, says: expect.stringContaining('in ‘Rosin’,') },
  ]);
  expect(likeMeasures(copy, [], beside('Rosin', 'Bows', 'Hair'))[0]!.says).toContain('in ‘Rosin’ and 2 more');
  expect(likeMeasures(copy, [], NOTHING_BESIDE)).toEqual([]);
});

test('a text without words is like nothing', () => {
  expect(likeMeasures(article(), SOURCES, NOTHING_BESIDE)).toMatchObject([{ value: 0 }]);
});
