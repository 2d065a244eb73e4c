import { expect, test } from 'vitest';
import { ARTICLE_FORMAT } from './block.ts';
import { upgradedArticle } from './upgrade.ts';

const evidence = [{ passage: 'd:1', digest: 'q' }];
const OF_1 = {
  title: 'Strings',
  titleChoices: [],
  slug: 'strings',
  description: '',
  keyPhrase: '',
  keywords: [],
  hashtags: [],
  language: 'en',
  body: [
    { type: 'table', id: 'a', caption: 'Woods', head: ['Wood', ''], rows: [['Maple', '1']], evidence },
    { type: 'table', id: 'b', head: [], rows: [] },
    { type: 'figure', id: 'c', file: 'f', width: 1, height: 1, alternative: '', caption: 'x', credit: 'y', lead: true },
    { type: 'quote', id: 'd', text: 'Listen.', attribution: 'A maker', evidence },
    { type: 'key points', id: 'e', items: ['one', 'two'] },
    { type: 'call to action', id: 'f', text: 'Come.', button: 'Shop', address: 'https://s.example/' },
    { type: 'paragraph', id: 'g', content: [{ text: 'as it was' }] },
  ],
};
const words = (text: string) => [{ text }];

test('an article of format 1 is one of today’s, nothing lost', () => {
  expect(upgradedArticle(OF_1)).toEqual({
    ...OF_1,
    format: ARTICLE_FORMAT,
    body: [
      {
        type: 'table',
        id: 'a',
        caption: words('Woods'),
        head: [words('Wood'), []],
        rows: [[words('Maple'), words('1')]],
        evidence,
      },
      { type: 'table', id: 'b', head: [], rows: [] },
      {
        type: 'figure',
        id: 'c',
        file: 'f',
        width: 1,
        height: 1,
        alternative: '',
        caption: words('x'),
        credit: words('y'),
        lead: true,
      },
      { type: 'quote', id: 'd', content: words('Listen.'), credit: words('A maker'), evidence },
      { type: 'key points', id: 'e', items: [words('one'), words('two')] },
      {
        type: 'call to action',
        id: 'f',
        content: words('Come.'),
        button: 'Shop',
        link: { to: 'address', address: 'https://s.example/' },
      },
      OF_1.body[6],
    ],
  });
});

test('upgraded twice it is the same; what is no article is left to its schema', () => {
  expect(upgradedArticle(upgradedArticle(OF_1))).toEqual(upgradedArticle(OF_1));
  for (const no of [null, 'x', 7]) expect(upgradedArticle(no)).toBe(no);
  expect(upgradedArticle({ body: 'x' })).toEqual({ body: [], format: ARTICLE_FORMAT });
});
