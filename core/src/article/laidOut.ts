import type { Emphasis, Paragraph as MdParagraph, PhrasingContent, RootContent } from 'mdast';
import { fromMarkdown } from 'mdast-util-from-markdown';
import { gfmFromMarkdown } from 'mdast-util-gfm';
import { gfm } from 'micromark-extension-gfm';
import type { Block } from './block.ts';
import { blocksOf } from './fromText.ts';
import { inlineText, sliceInline, trimInline } from './inline.ts';

/** A picture a finished text names: it is still to be fetched, and becomes a figure. */
export interface PictureAsked {
  type: 'picture asked';
  id: string;
  /** An address of the web, or one that holds the picture itself (RFC 2397). */
  address: string;
  alternative: string;
  caption?: string;
  credit?: string;
}

/** An address that stands alone: it is still to be seen whether a video is there; else it stays the words it is. */
export interface VideoAsked {
  type: 'video asked';
  id: string;
  address: string;
  /** What stands there when it is none. */
  words: Block[];
}

export type LaidOutPart = Block | PictureAsked | VideoAsked;

/** A finished text, taken apart: its blocks in order, what is still to be fetched, and what has no place in an article. */
export interface LaidOut {
  parts: LaidOutPart[];
  /** What was left out, each as a phrase: 'a form', 'a script'. */
  left: string[];
}

/** How pieces of HTML within Markdown are taken apart. */
export type HtmlReader = (html: string, id: () => string) => LaidOut;

const ADDRESS = /^<?(https?:\/\/[^\s<>]+)>?$/;

/** The address a line consists of; null when it says anything else. */
export function addressAlone(line: string): string | null {
  const address = ADDRESS.exec(line.trim())?.[1] ?? null;
  return address !== null && URL.canParse(address) ? address : null;
}

/** What a caption says of whose the picture is, and what else it says. */
export function creditIn(caption: string): { caption?: string; credit?: string } {
  const said = caption.replace(/\s+/g, ' ').trim();
  if (said === '') return {};
  const at = said.search(
    /(?:^|(?<=[.;|(–—-] ?))(?:©|\(c\) |(?:photo|photograph|picture|image|credit|source|foto|bild|quelle)(?: credit)?(?: by|:) )/iu,
  );
  if (at < 0) return { caption: said };
  let end = at;
  while (end > 0 && ' ;|(–—-'.includes(said[end - 1]!)) end--;
  const before = said.slice(0, end);
  const credit = said.slice(at).replace(/\)$/, '').trim();
  return { ...(before === '' ? {} : { caption: before }), credit };
}

/** An address that stands alone on a line, given room, so that it is a paragraph of its own. */
function apart(markdown: string): string {
  return markdown
    .split('\n')
    .flatMap((line) => (/^ {0,3}\S/.test(line) && addressAlone(line) !== null ? ['', line.trim(), ''] : [line]))
    .join('\n');
}

/**
 * A finished Markdown text (CommonMark with tables) taken apart, nothing written and no word left out. A picture becomes a
 * figure of its own after the words it stood among.
 */
export function laidOutMarkdown(markdown: string, html: HtmlReader): LaidOut {
  const root = fromMarkdown(apart(markdown.replace(/\r\n?/g, '\n')), {
    extensions: [gfm()],
    mdastExtensions: [gfmFromMarkdown()],
  });
  let n = 0;
  const id = () => `b${++n}`;
  const left: string[] = [];
  const parts = root.children.flatMap((node): LaidOutPart[] => {
    if (node.type === 'html') {
      const read = html(node.value, id);
      left.push(...read.left);
      return read.parts;
    }
    if (node.type === 'blockquote') return quoteOf(node, id);
    if (node.type === 'paragraph') return paragraphOf(node, id);
    const pictures = [...picturesIn(node)];
    return [...blocksOf(node, id), ...pictures.map((picture) => ({ ...picture, id: id() }))];
  });
  return { parts, left };
}

function paragraphOf(node: MdParagraph, id: () => string): LaidOutPart[] {
  const pictures = [...picturesIn(node)].map((picture) => ({ ...picture, id: id() }));
  const words = blocksOf({ ...node, children: withoutPictures(node.children) }, id);
  const [only] = node.children;
  const address = node.children.length === 1 && only?.type === 'link' ? addressAlone(only.url) : null;
  if (address !== null) return [{ type: 'video asked', id: id(), address, words }];
  return [...words, ...pictures];
}

type MdQuote = Extract<RootContent, { type: 'blockquote' }>;

/** A quotation; a last line behind a dash, or a last paragraph all of it emphasised, names who said it. */
function quoteOf(node: MdQuote, id: () => string): Block[] {
  const last = node.children.at(-1);
  if (node.children.length > 1 && last?.type === 'paragraph' && last.children.every(isEmphasis)) {
    const words = blocksOf({ ...node, children: node.children.slice(0, -1) }, id);
    const [by] = blocksOf({ ...last, children: last.children.flatMap(({ children }) => children) }, id);
    const [quote] = words;
    if (words.length === 1 && quote?.type === 'quote' && by?.type === 'paragraph')
      return [{ ...quote, credit: by.content }];
  }
  return blocksOf(node, id).map((block) => {
    if (block.type !== 'quote') return block;
    const said = /^([\s\S]*\S)\s+[–—]\s*([^–—!?]{1,119}[^–—!?.])$/u.exec(inlineText(block.content));
    if (!said) return block;
    const [whole, words, by] = said as unknown as [string, string, string];
    const credit = trimInline(sliceInline(block.content, whole.length - by.length));
    return { ...block, content: sliceInline(block.content, 0, words.length), credit };
  });
}

const isEmphasis = (node: PhrasingContent): node is Emphasis => node.type === 'emphasis';

function* picturesIn(node: RootContent | PhrasingContent): Generator<Omit<PictureAsked, 'id'>> {
  if (node.type === 'image')
    yield {
      type: 'picture asked',
      address: node.url,
      alternative: node.alt ?? '',
      ...creditIn(node.title ?? ''),
    };
  else if ('children' in node) for (const child of node.children) yield* picturesIn(child as RootContent);
}

function withoutPictures(nodes: readonly PhrasingContent[]): PhrasingContent[] {
  return nodes
    .filter(({ type }) => type !== 'image')
    .map(
      (node) => ('children' in node ? { ...node, children: withoutPictures(node.children) } : node) as PhrasingContent,
    )
    .filter((node) => !('children' in node) || node.children.length > 0);
}

/** Paragraphs parted by empty lines, an address that stands alone apart from them. */
export function laidOutPlain(text: string): LaidOut {
  let n = 0;
  const id = () => `b${++n}`;
  const paragraph = (said: string): Block => ({ type: 'paragraph', id: id(), content: [{ text: said }] });
  const parts = apart(text.replace(/\r\n?/g, '\n'))
    .split(/\n\s*\n/)
    .map((part) => part.replace(/\s+/g, ' ').trim())
    .filter((part) => part !== '')
    .map((part): LaidOutPart => {
      const address = addressAlone(part);
      return address === null
        ? paragraph(part)
        : { type: 'video asked', id: id(), address, words: [linked(id(), address)] };
    });
  return { parts, left: [] };
}

/** A paragraph that is an address and leads there. */
export function linked(id: string, address: string): Block {
  return { type: 'paragraph', id, content: [{ text: address, link: { to: 'address', address } }] };
}
