import {
  addressAlone,
  type Block,
  creditIn,
  type Inline,
  inlineText,
  type LaidOut,
  type LaidOutPart,
  linked,
  type Mark,
  type PictureAsked,
  sliceInline,
  trimInline,
} from '@grivo/core';
import { parseHTML } from 'linkedom';
import type { DomDocument, DomElement, DomNode } from './dom.ts';
import { tangled } from './tangled.ts';

const TEXT = 3;
const ELEMENT = 1;

/** What has no place in an article, as it is called to people; what is called nothing goes without a word. */
const LEFT: Record<string, string> = {
  SCRIPT: 'a script',
  FORM: 'a form',
  INPUT: 'a field of a form',
  SELECT: 'a field of a form',
  TEXTAREA: 'a field of a form',
  SVG: 'a drawing (SVG)',
  CANVAS: 'a drawing (canvas)',
  AUDIO: 'a recording',
  OBJECT: 'an embedded object',
  EMBED: 'an embedded object',
  MATH: 'a formula (MathML)',
  STYLE: '',
  NOSCRIPT: '',
  TEMPLATE: '',
  HEAD: '',
  HR: '',
};
const MARKS: Record<string, Mark> = { STRONG: 'strong', B: 'strong', EM: 'emphasis', I: 'emphasis', CODE: 'code' };
/** Elements that stand within a line. */
const IN_LINE = new Set(
  'A,ABBR,B,BDI,BDO,BR,CITE,CODE,DATA,DEL,DFN,EM,I,IMG,INS,KBD,LABEL,MARK,PICTURE,Q,S,SAMP,SMALL,SPAN,STRONG,SUB,SUP,TIME,U,VAR,WBR'.split(
    ',',
  ),
);
const isElement = (node: DomNode): node is DomElement => node.nodeType === ELEMENT;
const evened = (text: string | null | undefined): string => (text ?? '').replace(/\s+/g, ' ').trim();

interface Line {
  content: Inline[];
  pictures: PictureAsked[];
}

const worded = (content: readonly Inline[]) => content.some(({ text }) => text.trim() !== '');

/**
 * A finished text in HTML taken apart into blocks: its words and pictures in their order, nothing of what a page does.
 * @param id makes the ids of the blocks
 */
export function laidOutHtml(html: string, id: () => string): LaidOut {
  const problem = tangled(html);
  if (problem !== null) return { parts: [], left: [`a piece of HTML: ${problem}`] };
  const { document } = parseHTML(/<html[\s>]/i.test(html) ? html : `<html><body>${html}</body></html>`) as unknown as {
    document: DomDocument;
  };
  const taken = new Parts(id);
  const parts = document.body ? taken.blocks(document.body.childNodes) : [];
  return { parts, left: [...new Set(taken.left)] };
}

/** What elements become, and what of them has no place. */
class Parts {
  /** As it is called to people. */
  readonly left: string[] = [];

  constructor(private readonly id: () => string) {}

  private leave(tag: string): void {
    const called = LEFT[tag];
    if (called) this.left.push(called);
  }

  private picture(img: DomElement, caption = ''): PictureAsked {
    return {
      type: 'picture asked',
      id: this.id(),
      address: img.getAttribute('src') ?? img.getAttribute('data-src') ?? '',
      alternative: evened(img.getAttribute('alt')),
      ...creditIn(caption || evened(img.getAttribute('title'))),
    };
  }

  private line(nodes: Iterable<DomNode>, marks: Mark[] = [], link?: Inline['link']): Line {
    const out: Line = { content: [], pictures: [] };
    const say = (text: string) => {
      if (text !== '') out.content.push({ text, ...(marks.length > 0 ? { marks } : {}), ...(link ? { link } : {}) });
    };
    for (const node of nodes) {
      if (node.nodeType === TEXT) say((node.textContent ?? '').replace(/\s+/g, ' '));
      if (!isElement(node)) continue;
      const tag = node.tagName.toUpperCase();
      if (tag === 'BR') say(' ');
      else if (tag === 'IMG') out.pictures.push(this.picture(node));
      else if (tag in LEFT) this.leave(tag);
      else {
        const mark = MARKS[tag];
        const address = tag === 'A' ? node.getAttribute('href') : null;
        const inner = this.line(
          node.childNodes,
          mark && !marks.includes(mark) ? [...marks, mark] : marks,
          address && /^https?:\/\//.test(address) ? { to: 'address', address } : link,
        );
        out.content.push(...inner.content);
        out.pictures.push(...inner.pictures);
      }
    }
    return out;
  }
  private paragraph({ content, pictures }: Line): LaidOutPart[] {
    if (!worded(content)) return pictures;
    const words: Block = { type: 'paragraph', id: this.id(), content };
    const address = addressAlone(content.map(({ text }) => text).join(''));
    return address === null
      ? [words, ...pictures]
      : [{ type: 'video asked', id: this.id(), address, words: [linked(words.id, address)] }, ...pictures];
  }

  private film(element: DomElement, title = ''): LaidOutPart[] {
    const address = element.getAttribute('src') ?? element.querySelector('source')?.getAttribute('src') ?? '';
    if (!/^https?:\/\//.test(address)) {
      this.left.push(
        element.tagName.toUpperCase() === 'VIDEO'
          ? 'a video without an address'
          : 'an embedded page without an address',
      );
      return [];
    }
    const said = title || evened(element.getAttribute('title')) || address;
    const words: Block = {
      type: 'paragraph',
      id: this.id(),
      content: [{ text: said, link: { to: 'address', address } }],
    };
    return [{ type: 'video asked', id: this.id(), address, words: [words] }];
  }

  private figure(element: DomElement): LaidOutPart[] {
    const caption = evened(element.querySelector('figcaption')?.textContent);
    const pictures = [...element.querySelectorAll('img')];
    if (pictures.length > 0) return pictures.map((img) => this.picture(img, caption));
    const moving = element.querySelector('video,iframe');
    if (moving) return this.film(moving, caption);
    return this.blocks(element.childNodes);
  }

  private list(element: DomElement, ordered: boolean): LaidOutPart[] {
    const lines = [...element.childNodes].filter(isElement).map((item) => this.line(item.childNodes));
    const items = lines.map(({ content }) => content).filter(worded);
    const pictures = lines.flatMap((one) => one.pictures);
    return [...(items.length > 0 ? [{ type: 'list' as const, id: this.id(), ordered, items }] : []), ...pictures];
  }

  private table(element: DomElement): LaidOutPart[] {
    const rows = [...element.querySelectorAll('tr')].map((row) =>
      [...row.childNodes].filter(isElement).filter(({ tagName }) => /^T[DH]$/i.test(tagName)),
    );
    const headed =
      rows[0]?.length !== undefined && rows[0].length > 0 && rows[0].every(({ tagName }) => /^TH$/i.test(tagName));
    const said = rows.map((row) => row.map((cell) => trimInline(this.line(cell.childNodes).content)));
    const width = Math.max(0, ...said.map((row) => row.length));
    const even = said.map((row) => [...row, ...Array.from({ length: width - row.length }, (): Inline[] => [])]);
    const caption = trimInline(this.line(element.querySelector('caption')?.childNodes ?? []).content);
    const pictures = [...element.querySelectorAll('img')].map((img) => this.picture(img));
    if (width === 0) return pictures;
    return [
      {
        type: 'table',
        id: this.id(),
        ...(caption.length === 0 ? {} : { caption }),
        head: headed ? even[0]! : Array.from({ length: width }, () => []),
        rows: headed ? even.slice(1) : even,
      },
      ...pictures,
    ];
  }

  private quote(element: DomElement): LaidOutPart[] {
    const by = element.querySelector('cite,footer');
    const said = trimInline(by ? this.line(by.childNodes).content : []);
    const dash = /^[–—-]\s*/u.exec(inlineText(said))?.[0].length ?? 0;
    by?.remove();
    const content = trimInline(this.line(element.childNodes).content);
    return worded(content)
      ? [{ type: 'quote', id: this.id(), content, ...(worded(said) ? { credit: sliceInline(said, dash) } : {}) }]
      : [];
  }

  private block(element: DomElement): LaidOutPart[] {
    const tag = element.tagName.toUpperCase();
    if (tag in LEFT) {
      this.leave(tag);
      return [];
    }
    const level = /^H([1-6])$/.exec(tag);
    if (level) {
      const text = evened(element.textContent);
      const at = Math.min(4, Math.max(2, Number(level[1]))) as 2 | 3 | 4;
      const pictures = [...element.querySelectorAll('img')].map((img) => this.picture(img));
      return [...(text === '' ? [] : [{ type: 'heading' as const, id: this.id(), level: at, text }]), ...pictures];
    }
    switch (tag) {
      case 'P':
      case 'SUMMARY':
      case 'DT':
      case 'ADDRESS':
        return this.paragraph(this.line(element.childNodes));
      case 'UL':
      case 'OL':
        return this.list(element, tag === 'OL');
      case 'TABLE':
        return this.table(element);
      case 'BLOCKQUOTE':
        return this.quote(element);
      case 'FIGURE':
        return this.figure(element);
      case 'VIDEO':
      case 'IFRAME':
        return this.film(element);
      case 'PRE':
        return evened(element.textContent) === ''
          ? []
          : [{ type: 'paragraph', id: this.id(), content: [{ text: element.textContent!.trim(), marks: ['code'] }] }];
      default:
        return this.blocks(element.childNodes);
    }
  }

  /** Nodes in their order; words that stand outside of any block are gathered into paragraphs. */
  blocks(nodes: Iterable<DomNode>): LaidOutPart[] {
    const out: LaidOutPart[] = [];
    let loose: DomNode[] = [];
    const flush = () => {
      if (loose.length > 0) out.push(...this.paragraph(this.line(loose)));
      loose = [];
    };
    for (const node of nodes) {
      const inLine = node.nodeType === TEXT || (isElement(node) && IN_LINE.has(node.tagName.toUpperCase()));
      if (inLine) loose.push(node);
      else if (isElement(node)) {
        flush();
        out.push(...this.block(node));
      }
    }
    flush();
    return out;
  }
}
