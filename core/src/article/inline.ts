import type { Element, ElementContent } from 'hast';
import type { Paragraph, PhrasingContent } from 'mdast';
import type { Inline, LinkTarget } from './block.ts';

/** A picture in another width or form, where readers get it. */
export interface PictureCopy {
  form: 'webp' | 'avif';
  /** Pixels it is wide. */
  width: number;
  address: string;
}

/** How the derived forms find what lies outside the document. */
export interface Resolve {
  /** The public address of a stored file. */
  file: (digest: string) => string;
  /** The address of one of our own articles, or null while it has none: then the words stand without a link. */
  article: (id: string) => string | null;
  /** Copies of a stored file in other widths and forms, the narrowest first; where there are none, it stands alone. */
  copies?: ((digest: string) => readonly PictureCopy[]) | undefined;
  /** How the address of a link stands where it is shown; as it is where this is not said. */
  counted?: ((address: string) => string) | undefined;
  /** The stored picture of a chart, where charts are shown as pictures; else their table stands alone. */
  chart?: (id: string) => { file: string; width: number; height: number } | null;
}

/** Words of one look, for forms that are printed or opened in a word processor. */
export interface FlowSpan {
  text: string;
  strong?: boolean;
  emphasis?: boolean;
  code?: boolean;
  /** Where they lead. */
  href?: string;
}

export function inlineText(content: readonly Inline[]): string {
  return content.map((part) => part.text).join('');
}

/** Words without marks or links; none for an empty text. */
export function plainInline(text: string): Inline[] {
  return text === '' ? [] : [{ text }];
}

/** The letters from one place to another, marks and links with them. */
export function sliceInline(content: readonly Inline[], from: number, to = Number.POSITIVE_INFINITY): Inline[] {
  let at = 0;
  return content.flatMap((part) => {
    const start = at;
    at += part.text.length;
    const text = part.text.slice(Math.max(0, from - start), Math.max(0, to - start));
    return text === '' ? [] : [{ ...part, text }];
  });
}

/** Without control characters, runs of blanks, and blanks at either end. */
export function trimInline(content: readonly Inline[]): Inline[] {
  const parts = content.map((part) => ({
    ...part,
    text: part.text.replace(/[\u0000-\u0008\u000b-\u001f\u007f]/g, '').replace(/[ \t\n]+/g, ' '),
  }));
  const first = parts[0];
  const last = parts[parts.length - 1];
  if (first) first.text = first.text.trimStart();
  if (last) last.text = last.text.trimEnd();
  return parts.filter((part) => part.text !== '');
}

/** The address a link gets, or null when it must fall away. Only addresses of the web are let through. */
export function linkAddress(link: LinkTarget, resolve: Resolve): string | null {
  const address = link.to === 'article' ? resolve.article(link.article) : link.address;
  if (address === null || !/^(?:https?:\/\/|\/(?!\/)|mailto:)/i.test(address)) return null;
  return link.to === 'address' && resolve.counted ? resolve.counted(address) : address;
}

export function el(tagName: string, properties: Element['properties'], ...children: ElementContent[]): Element {
  return { type: 'element', tagName, properties, children };
}

export function htmlText(value: string): ElementContent {
  return { type: 'text', value };
}

/** Nodes within a link, or as they are where it leads nowhere. */
export function htmlLink(
  link: LinkTarget | undefined,
  resolve: Resolve,
  ...children: ElementContent[]
): ElementContent[] {
  const href = link ? linkAddress(link, resolve) : null;
  if (href === null) return children;
  const sponsored = link?.to === 'address' && link.sponsored;
  return [el('a', sponsored ? { href, rel: ['sponsored', 'nofollow'] } : { href }, ...children)];
}

const TAGS = { strong: 'strong', emphasis: 'em', code: 'code' } as const;

/** Words as nodes of HTML (hast). */
export function htmlInline(content: readonly Inline[], resolve: Resolve): ElementContent[] {
  return content.flatMap((part) => {
    let node: ElementContent = htmlText(part.text);
    for (const mark of part.marks ?? []) node = el(TAGS[mark], {}, node);
    return htmlLink(part.link, resolve, node);
  });
}

/** Words as nodes of Markdown (mdast). */
export function phrasing(content: readonly Inline[], resolve: Resolve): PhrasingContent[] {
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

export function mdParagraph(content: readonly Inline[], resolve: Resolve): Paragraph {
  return { type: 'paragraph', children: phrasing(content, resolve) };
}

/** The words emphasised, whatever marks they have. */
export function emphasised(content: readonly Inline[]): Inline[] {
  return content.map((part) => ({ ...part, marks: [...new Set([...(part.marks ?? []), 'emphasis' as const])] }));
}

/** Words as spans of a flow. */
export function spansOf(content: readonly Inline[], resolve: Resolve): FlowSpan[] {
  return content.map(({ text, marks = [], link }) => {
    const href = link ? linkAddress(link, resolve) : null;
    return {
      text,
      ...(marks.includes('strong') ? { strong: true } : {}),
      ...(marks.includes('emphasis') ? { emphasis: true } : {}),
      ...(marks.includes('code') ? { code: true } : {}),
      ...(href === null ? {} : { href }),
    };
  });
}

/** Words with others behind them, parted by a mark, where both are there. */
export function joined(mark: string, ...contents: (readonly Inline[] | undefined)[]): Inline[] {
  const there = contents.filter((content) => content !== undefined && content.length > 0) as (readonly Inline[])[];
  return there.flatMap((content, i) => (i === 0 ? content : [{ text: mark }, ...content]));
}
