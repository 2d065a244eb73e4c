import type { ArticleDocument, Block, Inline } from './block.ts';

/** Ids of our own articles that an article leads to, wherever in it the link stands. */
export function linkedArticles({ body }: Pick<ArticleDocument, 'body'>): string[] {
  const ids = body.flatMap(wordsOf).flatMap(({ link }) => (link?.to === 'article' ? [link.article] : []));
  return [...new Set(ids)];
}

function wordsOf(block: Block): readonly Inline[] {
  switch (block.type) {
    case 'paragraph':
    case 'standing text':
      return block.content;
    case 'list':
      return block.items.flat();
    case 'question and answer':
      return block.answer;
    default:
      return [];
  }
}
