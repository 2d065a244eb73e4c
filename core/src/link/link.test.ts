import fc from 'fast-check';
import { expect, test } from 'vitest';
import { EMPTY_ARTICLE } from '../article/block.ts';
import { articleText } from '../article/text.ts';
import { LinkIndex } from './linkIndex.ts';
import { placeLinks } from './place.ts';
import { rankPages } from './rank.ts';

const p = (id: string, text: string) => ({ type: 'paragraph' as const, id, content: [{ text }] });
const pages = [
  { address: 'https://b.example/weights', title: 'Glass weights for jars' },
  { address: 'https://b.example/airlock', title: 'How airlock lids work', article: 'a2' },
  { address: 'https://b.example/rust', title: 'Cleaning rust off a bicycle chain' },
];
const index = new LinkIndex(pages, 'en');
const article = {
  ...EMPTY_ARTICLE,
  body: [
    p('1', 'Keep everything under the brine with glass weights, always.'),
    p('2', 'An airlock lid lets gas out. Glass weights again.'),
  ],
};

test('pages are ranked by the rare words the article shares with their titles', () => {
  expect(rankPages(articleText(article), pages).map((r) => r.page.address)).toEqual([
    'https://b.example/airlock',
    'https://b.example/weights',
  ]);
});

test('links stand on words of the text, once a page, with our own kept by article', () => {
  const { article: linked, placed } = placeLinks(article, index, { own: 3, perParagraph: 1 });
  expect(placed.map((l) => [l.page.address, l.block, l.anchor])).toEqual([
    ['https://b.example/weights', '1', 'glass weights'],
    ['https://b.example/airlock', '2', 'airlock lid'],
  ]);
  expect(linked.body[1]).toMatchObject({
    content: [
      { text: 'An ' },
      { text: 'airlock lid', link: { to: 'article', article: 'a2' } },
      { text: ' lets gas out. Glass weights again.' },
    ],
  });
  expect(placeLinks(linked, index, { own: 3, perParagraph: 5 }).placed).toEqual([]);
});

test('never to itself, never over the limits, never a changed word', () => {
  expect(
    placeLinks(article, index, { own: 3, perParagraph: 1 }, new Set(['a2'])).placed.map((l) => l.page.address),
  ).toEqual(['https://b.example/weights']);
  const word = fc.constantFrom('glass', 'weights', 'airlock', 'lids', 'work', 'jar', 'the', 'and', 'salt', '.', ',');
  fc.assert(
    fc.property(fc.array(fc.array(word, { maxLength: 20 }), { maxLength: 5 }), fc.nat(3), (paragraphs, own) => {
      const body = paragraphs.map((words, i) => p(String(i), words.join(' ')));
      const result = placeLinks({ ...EMPTY_ARTICLE, body }, index, { own, perParagraph: 1 });
      expect(result.placed.length).toBeLessThanOrEqual(own);
      expect(new Set(result.placed.map((l) => l.block)).size).toBe(result.placed.length);
      expect(articleText(result.article)).toBe(articleText({ body }));
    }),
  );
});
