import { expect, test } from 'vitest';
import type { Block } from './block.ts';
import { leadingTo, linkedArticles } from './linked.ts';

const body: Block[] = [
  {
    type: 'paragraph',
    id: 'p',
    content: [
      { text: 'See ' },
      { text: 'this', link: { to: 'article', article: 'a1' } },
      { text: ' and that', link: { to: 'address', address: 'https://x.example/a1' } },
    ],
  },
  { type: 'list', id: 'l', ordered: false, items: [[{ text: 'again', link: { to: 'article', article: 'a2' } }]] },
  { type: 'call to action', id: 'c', content: [], button: 'Go', link: { to: 'article', article: 'a1' } },
];

test('links to articles lead to others wherever they stand; those that are not named and addresses stay', () => {
  expect(linkedArticles({ body })).toEqual(['a1', 'a2']);
  const led = leadingTo(body, new Map([['a1', 'b1']]));
  expect(linkedArticles({ body: led })).toEqual(['b1', 'a2']);
  expect(JSON.stringify(led)).toContain('https://x.example/a1');
  expect(led[2]).toMatchObject({ link: { article: 'b1' } });
  expect(leadingTo(body, new Map())).toEqual(body);
});
