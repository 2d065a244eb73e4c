import type { ElementContent, Root, RootContent } from 'hast';
import { toHtml } from 'hast-util-to-html';
import { directionOf } from '../language/tag.ts';
import type { ArticleDocument, Block, BlockType } from './block.ts';
import { kindOf } from './blocks/all.ts';
import { hereOf } from './here.ts';
import { el, htmlText, type Resolve } from './inline.ts';

/** What stands below a text and is no part of it: a fold ends before. */
export const BELOW: readonly BlockType[] = [
  'closing',
  'call to action',
  'standing text',
  'disclosure',
  'related articles',
];

/**
 * Every block of the body beside the HTML it becomes; null for one that readers do not see. Whatever shows an article is
 * made of these: the page in the application, what is published, what is saved.
 * @param making whether what readers never see is shown too, as where the article is made
 */
export function articleNodes(
  { body }: Pick<ArticleDocument, 'body'>,
  resolve: Resolve,
  making = false,
): { block: Block; node: RootContent | null }[] {
  const here = hereOf(body, resolve, making);
  return body.map((block) => ({ block, node: kindOf(block).html(block, here) }));
}

/**
 * The body as an HTML fragment. The title is not part of it. Everything but the owner's own markup is escaped. A text
 * that runs from right to left says so, with its language; what stands below a fold is within it.
 */
export function articleHtml(
  article: Pick<ArticleDocument, 'body'> & Partial<Pick<ArticleDocument, 'language'>>,
  resolve: Resolve,
): string {
  const blocks = folded(article.body, articleNodes(article, resolve));
  const lines = blocks.flatMap((node, i): RootContent[] => (i === 0 ? [node] : [htmlText('\n'), node]));
  const { language } = article;
  const children =
    language !== undefined && directionOf(language) === 'rtl'
      ? [el('div', { lang: language, dir: 'rtl' }, ...(lines as Parameters<typeof el>[2][]))]
      : lines;
  return toHtml({ type: 'root', children } satisfies Root, { allowDangerousHtml: true });
}

/** What a page by itself looks like, wherever it is opened: one column that can be read, and nothing from elsewhere. */
const LOOKS =
  'body{margin:0 auto;max-width:44rem;padding:2rem 1rem;font:1.0625rem/1.6 serif}img,table{max-width:100%}img{height:auto}figure{margin:1.5em 0}figcaption{font-size:.875em}table{border-collapse:collapse}th,td{border:1px solid;padding:.3em .6em;text-align:start}';

/** An article as a whole page of HTML that can be opened by itself. */
export function articlePage(article: ArticleDocument, resolve: Resolve): string {
  const { title, description, language } = article;
  const head = el(
    'head',
    {},
    el('meta', { charSet: 'utf-8' }),
    el('meta', { name: 'viewport', content: 'width=device-width' }),
    el('title', {}, htmlText(title)),
    ...(description === '' ? [] : [el('meta', { name: 'description', content: description })]),
    el('style', {}, htmlText(LOOKS)),
  );
  const body = { type: 'raw', value: `\n${articleHtml(article, resolve)}\n` } as unknown as ElementContent;
  const page = el(
    'html',
    { lang: language, dir: directionOf(language) },
    head,
    el('body', {}, el('main', {}, el('h1', {}, htmlText(title)), body)),
  );
  return `${toHtml({ type: 'root', children: [{ type: 'doctype' }, page] } satisfies Root, { allowDangerousHtml: true })}\n`;
}

/** Every block as HTML by itself, as it is within the whole; empty for one readers do not see. */
export function blocksHtml({ body }: Pick<ArticleDocument, 'body'>, resolve: Resolve): { id: string; text: string }[] {
  const nodes = articleNodes({ body }, resolve);
  const fold = foldIn(body, nodes);
  return nodes.map(({ block, node }) => {
    // Of a fold readers see its words, and what it holds as what that is.
    const shown = block === fold?.block ? el('p', {}, htmlText(fold.block.words)) : node;
    return {
      id: block.id,
      text: shown ? toHtml({ type: 'root', children: [shown] } satisfies Root, { allowDangerousHtml: true }) : '',
    };
  });
}

/** The nodes in order, what stands between a fold and the end of the text within the fold. */
function folded(body: readonly Block[], nodes: ReturnType<typeof articleNodes>): RootContent[] {
  const shown = (from: number, to: number) => nodes.slice(from, to).flatMap(({ node }) => node ?? []);
  const fold = foldIn(body, nodes);
  if (!fold) return shown(0, nodes.length);
  const { block, at, end } = fold;
  const within = el(
    'details',
    { className: ['fold'] },
    el('summary', {}, htmlText(block.words)),
    ...(shown(at + 1, end) as Parameters<typeof el>[2][]),
  );
  return [...shown(0, at), within, ...shown(end, nodes.length)];
}

/** The fold of a text that has one and something to hold, with where what it holds begins and ends. */
function foldIn(body: readonly Block[], nodes: ReturnType<typeof articleNodes>) {
  const at = body.findIndex(({ type }) => type === 'fold');
  const block = body[at];
  if (block?.type !== 'fold') return null;
  let end = body.length;
  while (end > at + 1 && BELOW.includes(body[end - 1]!.type)) end--;
  return nodes.slice(at + 1, end).some(({ node }) => node !== null) ? { block, at, end } : null;
}
