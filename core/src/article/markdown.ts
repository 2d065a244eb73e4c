import type { BlockContent, PhrasingContent, Root, RootContent, TableRow } from 'mdast';
import { gfmToMarkdown } from 'mdast-util-gfm';
import { toMarkdown } from 'mdast-util-to-markdown';
import type { ArticleDocument, Block, Inline } from './block.ts';
import { linkAddress, type Resolve } from './html.ts';

function phrasing(content: readonly Inline[], resolve: Resolve): PhrasingContent[] {
  return content.map((part) => {
    let node: PhrasingContent = part.marks?.includes('code')
      ? { type: 'inlineCode', value: part.text }
      : { type: 'text', value: part.text };
    if (part.marks?.includes('emphasis')) node = { type: 'emphasis', children: [node] };
    if (part.marks?.includes('strong')) node = { type: 'strong', children: [node] };
    const url = part.link ? linkAddress(part.link, resolve) : null;
    return url === null ? node : { type: 'link', url, children: [node] };
  });
}

function paragraph(content: readonly Inline[], resolve: Resolve): BlockContent {
  return { type: 'paragraph', children: phrasing(content, resolve) };
}

function listOf(items: readonly (readonly Inline[])[], ordered: boolean, resolve: Resolve): BlockContent {
  return {
    type: 'list',
    ordered,
    spread: false,
    children: items.map((item) => ({ type: 'listItem', spread: false, children: [paragraph(item, resolve)] })),
  };
}

function tableOf(head: readonly string[], rows: readonly string[][]): BlockContent {
  const row = (cells: readonly string[]): TableRow => ({
    type: 'tableRow',
    children: cells.map((cell) => ({ type: 'tableCell', children: [{ type: 'text', value: cell }] })),
  });
  return { type: 'table', children: [row(head), ...rows.map(row)] };
}

/** A block as nodes of a Markdown document. */
export function blockNodes(block: Block, resolve: Resolve): RootContent[] {
  switch (block.type) {
    case 'heading':
      return [{ type: 'heading', depth: block.level, children: [{ type: 'text', value: block.text }] }];
    case 'paragraph':
    case 'standing text':
      return [paragraph(block.content, resolve)];
    case 'list':
      return [listOf(block.items, block.ordered, resolve)];
    case 'key points':
      return [
        listOf(
          block.items.map((item) => [{ text: item }]),
          false,
          resolve,
        ),
      ];
    case 'table':
      return [
        ...(block.caption ? [paragraph([{ text: block.caption, marks: ['emphasis'] }], resolve)] : []),
        tableOf(block.head, block.rows),
      ];
    case 'chart':
      return [
        tableOf(
          ['', ...block.labels],
          block.series.map((s) => [s.name, ...s.values.map(String)]),
        ),
        paragraph([{ text: block.alternative }], resolve),
      ];
    case 'figure': {
      const note = [block.caption, block.credit].filter(Boolean).join(' · ');
      const image: RootContent = {
        type: 'paragraph',
        children: [{ type: 'image', url: resolve.file(block.file), alt: block.alternative }],
      };
      return note ? [image, paragraph([{ text: note, marks: ['emphasis'] }], resolve)] : [image];
    }
    case 'quote':
      return [
        {
          type: 'blockquote',
          children: [
            paragraph([{ text: block.text }], resolve),
            ...(block.attribution ? [paragraph([{ text: block.attribution, marks: ['emphasis'] }], resolve)] : []),
          ],
        },
      ];
    case 'video':
      return [paragraph([{ text: block.title, link: { to: 'address', address: block.address } }], resolve)];
    case 'question and answer':
      return [paragraph([{ text: block.question, marks: ['strong'] }], resolve), paragraph(block.answer, resolve)];
    case 'call to action':
      return [
        paragraph(
          [{ text: `${block.text} ` }, { text: block.button, link: { to: 'address', address: block.address } }],
          resolve,
        ),
      ];
    case "owner's markup":
      return [{ type: 'html', value: block.markup }];
    case 'contents':
      return [];
  }
}

/** The body as Markdown with tables (GFM). */
export function articleMarkdown(article: Pick<ArticleDocument, 'body'>, resolve: Resolve): string {
  const root: Root = { type: 'root', children: article.body.flatMap((block) => blockNodes(block, resolve)) };
  return toMarkdown(root, { extensions: [gfmToMarkdown()], bullet: '-', emphasis: '_' });
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
