import type { Root } from 'mdast';
import { gfmToMarkdown } from 'mdast-util-gfm';
import { toMarkdown } from 'mdast-util-to-markdown';
import type { ArticleDocument } from './block.ts';
import { kindOf } from './blocks/all.ts';
import { hereOf } from './here.ts';
import type { Resolve } from './inline.ts';

const written = (children: Root['children']): string =>
  toMarkdown({ type: 'root', children }, { extensions: [gfmToMarkdown()], bullet: '-', emphasis: '_' });

/** The body as Markdown with tables (GFM). */
export function articleMarkdown({ body }: Pick<ArticleDocument, 'body'>, resolve: Resolve): string {
  const here = hereOf(body, resolve);
  return written(body.flatMap((block) => kindOf(block).markdown(block, here)));
}

/** Every block as Markdown by itself, as it is within the whole. */
export function blocksMarkdown(
  { body }: Pick<ArticleDocument, 'body'>,
  resolve: Resolve,
): { id: string; text: string }[] {
  const here = hereOf(body, resolve);
  return body.map((block) => ({ id: block.id, text: written(kindOf(block).markdown(block, here)) }));
}

/** The whole article as a Markdown file: YAML front matter (JSON strings are YAML), then the body. */
export function articleFile(article: ArticleDocument, resolve: Resolve): string {
  const front = {
    title: article.title,
    slug: article.slug,
    description: article.description,
    language: article.language,
    keywords: article.keywords,
    hashtags: article.hashtags,
  };
  const lines = Object.entries(front).map(([key, value]) => `${key}: ${JSON.stringify(value)}`);
  return `---\n${lines.join('\n')}\n---\n\n${articleMarkdown(article, resolve)}`;
}
