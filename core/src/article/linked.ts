import type { ArticleDocument, Block } from './block.ts';
import { linksOf } from './text.ts';

/** Ids of our own articles that an article leads to, wherever in it the link stands. */
export function linkedArticles({ body }: Pick<ArticleDocument, 'body'>): string[] {
  return [...new Set(body.flatMap(linksOf).flatMap((link) => (link.to === 'article' ? [link.article] : [])))];
}

/** Blocks whose links to articles of ours lead to others in their place; what is not named stays. */
export function leadingTo(body: readonly Block[], instead: ReadonlyMap<string, string>): Block[] {
  const turned = (value: unknown): unknown => {
    if (Array.isArray(value)) return value.map(turned);
    if (value === null || typeof value !== 'object') return value;
    const { to, article } = value as { to?: unknown; article?: unknown };
    if (to === 'article' && typeof article === 'string') return { ...value, article: instead.get(article) ?? article };
    return Object.fromEntries(Object.entries(value).map(([name, part]) => [name, turned(part)]));
  };
  return instead.size === 0 ? [...body] : (turned(body) as Block[]);
}
