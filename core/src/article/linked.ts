import type { ArticleDocument } from './block.ts';
import { inlinesOf } from './text.ts';

/** Ids of our own articles that an article leads to, wherever in it the link stands. */
export function linkedArticles({ body }: Pick<ArticleDocument, 'body'>): string[] {
  const ids = body.flatMap(inlinesOf).flatMap(({ link }) => (link?.to === 'article' ? [link.article] : []));
  return [...new Set(ids)];
}
