import { type Block, type Inline, type Mark, readEditable, rejoinedInline, trimInline } from '@grivo/core';
import { Fragment, Slice } from 'prosemirror-model';
import { Plugin } from 'prosemirror-state';
import { nodeOf } from './document.ts';
import { schema } from './schema.ts';

/** What somebody pasted, as blocks: HTML of a page, a word processor or a range of a sheet, or Markdown. */
export function pasted(html: string, text: string): Block[] | null {
  if (html !== '' && !html.includes('data-pm-slice')) return blocksOfHtml(html);
  if (html === '' && isMarkdown(text)) {
    const read = readEditable(text, []);
    return read.ok ? read.body : null;
  }
  return null;
}

/** Reads what is pasted as blocks of an article; what was copied here comes back as it was. */
export function readsPaste(): Plugin {
  return new Plugin({
    props: {
      handlePaste(view, event) {
        const data = event.clipboardData;
        if (!data || event.defaultPrevented) return false;
        // In a part of a block only words can stand.
        if (view.state.selection.$from.depth > 1) return false;
        const blocks = pasted(data.getData('text/html'), data.getData('text/plain'));
        if (!blocks || blocks.length === 0) return false;
        view.dispatch(view.state.tr.replaceSelection(sliceOf(blocks)).scrollIntoView().setMeta('paste', true));
        return true;
      },
    },
  });
}

/** Blocks as something to be put in: a single paragraph is words within the text. */
function sliceOf(blocks: readonly Block[]): Slice {
  const nodes = blocks.map((block) => {
    const node = nodeOf(block);
    return node.type.create({ ...node.attrs, id: null, evidence: null }, node.content);
  });
  const open = (node: (typeof nodes)[number] | undefined) => (node?.type === schema.nodes.paragraph ? 1 : 0);
  return new Slice(Fragment.fromArray(nodes), open(nodes[0]), open(nodes.at(-1)));
}

/** Whether a text has lines only Markdown has. */
function isMarkdown(text: string): boolean {
  return /^(?:#{1,6} \S|[-*+] \S|\d{1,3}[.)] \S|> \S|\|.*\||:::?[a-z])/m.test(text) || text.includes('](http');
}

/** Elements that part texts. */
const FLOW = new Set(
  'P DIV SECTION ARTICLE MAIN HEADER FOOTER ASIDE H1 H2 H3 H4 H5 H6 UL OL LI TABLE BLOCKQUOTE PRE HR FIGURE BODY DL DT DD FORM CENTER'.split(
    ' ',
  ),
);
const UNREAD = new Set(
  'SCRIPT STYLE HEAD META LINK TITLE NOSCRIPT TEMPLATE IFRAME OBJECT SVG IMG VIDEO AUDIO BUTTON INPUT SELECT'.split(
    ' ',
  ),
);

/** The blocks of a piece of HTML: its texts, headings, lists, tables and quotations; what it would show or run is left out. */
export function blocksOfHtml(html: string): Block[] {
  const document = new DOMParser().parseFromString(html, 'text/html');
  const reader = new HtmlReader();
  reader.flow(document.body);
  return reader.blocks();
}

class HtmlReader {
  private readonly out: Block[] = [];
  private inline: Inline[] = [];

  blocks(): Block[] {
    this.end();
    return this.out;
  }

  /** Ends the text that is being read. */
  private end(): void {
    const content = trimInline(rejoinedInline(this.inline));
    this.inline = [];
    if (content.length > 0) this.out.push({ type: 'paragraph', id: '', content });
  }

  flow(parent: Node): void {
    for (const node of parent.childNodes) this.node(node);
  }

  private node(node: Node): void {
    if (node.nodeType === Node.TEXT_NODE) this.inline.push(...textOf(node, parentLook(node)));
    if (!(node instanceof HTMLElement) || UNREAD.has(node.tagName)) return;
    const { tagName } = node;
    if (!FLOW.has(tagName)) {
      if (tagName === 'BR') this.inline.push({ text: ' ' });
      // Some wrap whole pages in an element that is none.
      else this.flow(node);
      return;
    }
    this.end();
    this.block(node, tagName);
    this.end();
  }

  private block(node: HTMLElement, tag: string): void {
    const heading = /^H([1-6])$/.exec(tag);
    if (heading) {
      const text = oneLine(node.textContent);
      const level = Math.min(4, Math.max(2, Number(heading[1]))) as 2 | 3 | 4;
      if (text !== '') this.out.push({ type: 'heading', id: '', level, text });
    } else if (tag === 'UL' || tag === 'OL') this.items(itemsOf(node), tag === 'OL');
    else if (tag === 'TABLE') this.table(node as HTMLTableElement);
    else if (tag === 'BLOCKQUOTE') {
      const content = inlineOf(node);
      if (content.length > 0) this.out.push({ type: 'quote', id: '', content });
    } else if (tag === 'P' && /mso-list:|MsoListParagraph/.test(`${node.getAttribute('style')} ${node.className}`))
      this.listParagraph(node);
    else this.flow(node);
  }

  /** A paragraph of a word processor that is drawn as an item of a list, its sign as text before it. */
  private listParagraph(node: HTMLElement): void {
    const text = oneLine(node.textContent);
    const sign = /^(?:[·•▪§o–-]|\(?(?:\d{1,3}|[a-z])[.)])\s*/u.exec(text)?.[0] ?? '';
    const content = trimInline(without(inlineOf(node), sign.trim()));
    if (content.length > 0) this.items([content], /[\da-z][.)]/.test(sign));
  }

  private items(items: Inline[][], ordered: boolean): void {
    if (items.length === 0) return;
    const last = this.out.at(-1);
    if (last?.type === 'list' && last.ordered === ordered && this.inline.length === 0) last.items.push(...items);
    else this.out.push({ type: 'list', id: '', ordered, items });
  }

  private table(table: HTMLTableElement): void {
    const rows = [...table.rows].map((row) => [...row.cells].map((cell) => inlineOf(cell)));
    const full = rows.filter((row) => row.some((cell) => cell.length > 0));
    const [head, ...rest] = full;
    if (!head) return;
    // A table of one cell is a frame around a text.
    if (full.length === 1 && head.length === 1) this.out.push({ type: 'paragraph', id: '', content: head[0]! });
    else {
      const caption = table.caption ? inlineOf(table.caption) : [];
      this.out.push({ type: 'table', id: '', ...(caption.length > 0 ? { caption } : {}), head, rows: rest });
    }
  }
}

/** The items of a list and of those within it, in order. */
function itemsOf(list: HTMLElement): Inline[][] {
  const out: Inline[][] = [];
  for (const child of list.children) {
    if (child instanceof HTMLElement && (child.tagName === 'UL' || child.tagName === 'OL')) out.push(...itemsOf(child));
    if (child.tagName !== 'LI') continue;
    const own = child.cloneNode(true) as HTMLElement;
    for (const inner of own.querySelectorAll('ul, ol')) inner.remove();
    const content = inlineOf(own);
    if (content.length > 0) out.push(content);
    for (const inner of child.querySelectorAll<HTMLElement>(':scope > ul, :scope > ol')) out.push(...itemsOf(inner));
  }
  return out;
}

/** Everything an element says, as one text. */
function inlineOf(element: HTMLElement): Inline[] {
  const out: Inline[] = [];
  const walk = (parent: Node) => {
    for (const node of parent.childNodes) {
      if (node.nodeType === Node.TEXT_NODE) out.push(...textOf(node, parentLook(node)));
      if (!(node instanceof HTMLElement) || UNREAD.has(node.tagName)) continue;
      const parts = FLOW.has(node.tagName) || node.tagName === 'BR';
      if (parts) out.push({ text: ' ' });
      walk(node);
      if (parts) out.push({ text: ' ' });
    }
  };
  walk(element);
  return trimInline(rejoinedInline(out));
}

type Look = Pick<Inline, 'marks' | 'link'>;

/** How the words of a text node look and where they lead, by what it stands in. */
function parentLook(text: Node): Look {
  const marks = new Set<Mark>();
  let link: Inline['link'];
  let weight: boolean | null = null;
  let slant: boolean | null = null;
  for (let at = text.parentElement; at; at = at.parentElement) {
    const { fontWeight, fontStyle } = at.style;
    if (fontWeight !== '') weight ??= /^(?:bold|bolder|[6-9]\d\d)$/.test(fontWeight);
    if (fontStyle !== '') slant ??= fontStyle === 'italic' || fontStyle === 'oblique';
    if (at.tagName === 'B' || at.tagName === 'STRONG') weight ??= true;
    if (at.tagName === 'I' || at.tagName === 'EM') slant ??= true;
    if (at.tagName === 'CODE' || at.tagName === 'KBD' || at.tagName === 'TT') marks.add('code');
    const address = at.tagName === 'A' ? (at.getAttribute('href') ?? '') : '';
    if (!link && /^https?:\/\//i.test(address)) link = { to: 'address', address };
  }
  if (slant) marks.add('emphasis');
  if (weight) marks.add('strong');
  return { ...(marks.size > 0 ? { marks: [...marks] } : {}), ...(link ? { link } : {}) };
}

function textOf(node: Node, look: Look): Inline[] {
  const text = (node.textContent ?? '').replace(/[\s\u00a0]+/g, ' ');
  return text === '' ? [] : [{ text, ...look }];
}

function oneLine(text: string | null): string {
  return (text ?? '').replace(/[\s\u00a0]+/g, ' ').trim();
}

/** A text without the sign it begins with. */
function without(content: readonly Inline[], sign: string): Inline[] {
  const [first, ...rest] = content;
  if (!first || sign === '') return [...content];
  const text = first.text.trimStart();
  if (text.startsWith(sign)) return [{ ...first, text: text.slice(sign.length) }, ...rest];
  return sign.startsWith(text) ? without(rest, sign.slice(text.length)) : [...content];
}
