import type { ArticleDocument } from './block.ts';
import { linksOf } from './text.ts';

/** Ids of our own articles that an article leads to, wherever in it the link stands. */
export function linkedArticles({ body }: Pick<ArticleDocument, 'body'>): string[] {
  return [...new Set(body.flatMap(linksOf).flatMap((link) => (link.to === 'article' ? [link.article] : [])))];
}
