import { EMPTY_ARTICLE } from '@grivo/core';
import { expect, test } from 'vitest';
import { ArticleDocumentSchema } from './document.ts';

test('a document survives the wire unchanged, and what is no block is refused with its place', () => {
  const article = {
    ...EMPTY_ARTICLE,
    body: [
      { type: 'heading' as const, id: 'a', level: 2 as const, text: 'Salt' },
      {
        type: 'paragraph' as const,
        id: 'b',
        content: [{ text: 'x', marks: ['strong' as const], link: { to: 'article' as const, article: 'a1' } }],
        evidence: [{ passage: 'd:1', digest: 'q' }],
      },
    ],
  };
  expect(ArticleDocumentSchema.parse(JSON.parse(JSON.stringify(article)))).toEqual(article);
  const wrong = ArticleDocumentSchema.safeParse({
    ...article,
    body: [{ type: 'heading', id: 'a', level: 1, text: 'Salt' }],
  });
  expect(wrong.error?.issues[0]?.path.slice(0, 2)).toEqual(['body', 0]);
  expect(ArticleDocumentSchema.safeParse({ ...article, body: [{ type: 'marquee', id: 'a' }] }).success).toBe(false);
});
