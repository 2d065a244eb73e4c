import {
  BLOCK_NAMED,
  type Block,
  type BlockType,
  editableHtml,
  type Inline,
  inlineText,
  type LaidOutPart,
  type LinkTarget,
  linksOf,
  type ReadBody,
  rejoinedInline,
  trimInline,
  withTexts,
} from '@grivo/core';
import { parseHTML } from 'linkedom';
import type { DomDocument, DomElement, DomNode } from '../../formats/documents/dom.ts';
import { laidOutHtml } from '../../formats/documents/laidOutHtml.ts';
import { tangled } from '../../formats/documents/tangled.ts';

type Element = DomElement & { readonly outerHTML: string };

const ELEMENT = 1;
const TEXT = 3;
const isElement = (node: DomNode): node is Element => node.nodeType === ELEMENT;

/** Where links lead that no page of the web has, while the text is taken apart. */
const INSIDE = 'https://inside.invalid/?to=';
const PAGE_OF_OURS = '/articles/';

/** Kinds that stand outside the text and are only shown in it, as they are called to people. */
const OUTSIDE: Partial<Record<BlockType, string>> = {
  video: 'video',
  chart: 'chart',
  contents: 'list of contents',
  "owner's markup": 'markup of your own',
  fold: 'fold',
  placeholder: 'kept place',
  'related articles': 'list of related articles',
};

/** Kinds told by the class of their element. */
const CLASSED: readonly [string, BlockType][] = [
  ['key-points', 'key points'],
  ['question', 'question and answer'],
  ['call', 'call to action'],
  ['closing', 'closing'],
  ['standing', 'standing text'],
  ['disclosure', 'disclosure'],
];

/** What cannot become a block, said to whoever edits. */
class Refused extends Error {
  constructor(
    readonly sentence: string,
    readonly mend: string,
  ) {
    super(sentence);
  }
}

/**
 * The blocks of a body that was edited as HTML (see `editableHtml` of the core), not yet aligned to those before. An element
 * that is as it was is the block it names; what was changed is read as what it is now, and keeps the name.
 */
export function readEditedHtml(html: string, former: readonly Block[]): ReadBody {
  const problem = tangled(html);
  if (problem !== null) return bad(1, `The HTML cannot be read: ${problem}.`, 'Make it simpler.');
  const reader = new Reader(former);
  const body: Block[] = [];
  for (const piece of reader.pieces(topOf(html))) {
    try {
      body.push(...reader.read(piece));
    } catch (fault) {
      if (!(fault instanceof Refused)) throw fault;
      return bad(lineOf(html, piece), fault.sentence, fault.mend);
    }
  }
  return { ok: true, body };
}

function bad(line: number, sentence: string, mend: string): ReadBody {
  return { ok: false, problems: [{ line, sentence, mend }] };
}

/** The line a piece begins in: by the block it names, else by its first words. */
function lineOf(html: string, piece: Piece): number {
  const signs =
    typeof piece === 'string'
      ? [piece.trim().slice(0, 30), /<\w+/.exec(piece)?.[0] ?? '']
      : [`${BLOCK_NAMED}="${piece.getAttribute(BLOCK_NAMED)}"`, `<${piece.tagName.toLowerCase()}`];
  const at = signs.map((sign) => (sign === '' ? -1 : html.indexOf(sign))).find((one) => one >= 0) ?? 0;
  return html.slice(0, at).split('\n').length;
}

function topOf(html: string): DomNode[] {
  const { document } = parseHTML(`<html><body>${html}</body></html>`) as unknown as { document: DomDocument };
  return [...(document.body?.childNodes ?? [])];
}

/** An element, or the HTML of what is none that is known. */
type Piece = Element | string;

const namedIn = (node: Element) => node.querySelector(`[${BLOCK_NAMED}]`) !== null;

function typeIn(node: Element): BlockType | undefined {
  const classes = (node.getAttribute('class') ?? '').split(/\s+/);
  return CLASSED.find(([name]) => classes.includes(name))?.[1];
}

class Reader {
  private readonly former: ReadonlyMap<string, Block>;
  /** What each block was shown as, by its name. */
  private readonly shown: ReadonlyMap<string, string>;
  private readonly sponsored: ReadonlySet<string>;
  private n = 0;

  constructor(former: readonly Block[]) {
    this.former = new Map(former.map((block) => [block.id, block]));
    const elements = topOf(editableHtml(former)).filter(isElement);
    this.shown = new Map(elements.map((one) => [one.getAttribute(BLOCK_NAMED) ?? '', one.outerHTML]));
    this.sponsored = new Set(
      former.flatMap(linksOf).flatMap((link) => (link.to === 'address' && link.sponsored ? [link.address] : [])),
    );
  }

  /** What is read together: an element that is known, or all that stands between two of them. */
  pieces(nodes: Iterable<DomNode>): Piece[] {
    const out: Piece[] = [];
    let plain: string[] = [];
    const end = () => {
      if (plain.length > 0) out.push(plain.join(''));
      plain = [];
    };
    for (const node of nodes) {
      if (node.nodeType === TEXT) plain.push(escaped(node.textContent ?? ''));
      if (!isElement(node)) continue;
      if (this.isKnown(node)) {
        end();
        out.push(node);
      } else plain.push(node.outerHTML);
    }
    end();
    return out;
  }

  private own(node: Element): Block | undefined {
    const name = node.getAttribute(BLOCK_NAMED);
    return name === null ? undefined : this.former.get(name);
  }

  private isKnown(node: Element): boolean {
    return this.own(node) !== undefined || typeIn(node) !== undefined || namedIn(node);
  }

  read(piece: Piece): Block[] {
    if (typeof piece === 'string') return this.laidOut(piece);
    const own = this.own(piece);
    if (own && this.shown.get(own.id) === piece.outerHTML) return [own];
    // Somebody set blocks into an element of a page.
    if (!own && namedIn(piece)) return this.pieces(piece.childNodes).flatMap((inner) => this.read(inner));
    const [first, ...rest] = this.changed(piece, own);
    if (!first) return [];
    return [own ? { ...first, id: own.id } : first, ...rest];
  }

  private changed(node: Element, own: Block | undefined): Block[] {
    if (own?.type === 'figure') return [this.figure(node, own)];
    const outside = own && OUTSIDE[own.type];
    if (own && outside)
      throw new Refused(
        `The ${outside} ‘${own.id}’ cannot be changed as HTML`,
        'Put its lines back as they were, or take them out; it is changed on the page itself.',
      );
    const type = typeIn(node);
    switch (type) {
      case undefined:
        return this.laidOut(node.outerHTML);
      case 'key points':
        return [{ type, id: this.id(), items: this.itemsOf(node) }];
      case 'question and answer':
        return [this.question(node)];
      case 'call to action':
        return [this.call(node, own)];
      default:
        return [{ type: type as 'closing', id: this.id(), content: this.contentOf(node) }];
    }
  }

  /** Of a picture its words are read: what it is of is no part of the text. */
  private figure(node: Element, own: Extract<Block, { type: 'figure' }>): Block {
    const image = node.querySelector('img');
    if (!image || image.getAttribute('src') !== own.file)
      throw new Refused(
        `The picture ‘${own.id}’ cannot be another one`,
        'Put its ‘img’ back as it was; another picture is put in on the page itself.',
      );
    const caption = node.querySelector('figcaption');
    const { caption: _, ...rest } = own;
    const words = caption ? this.contentOf(caption as Element) : [];
    return {
      ...rest,
      alternative: (image.getAttribute('alt') ?? '').trim(),
      ...(inlineText(words).trim() === '' ? {} : { caption: words }),
    };
  }

  private question(node: Element): Block {
    const [asked, ...answers] = this.laidOut(node.outerHTML);
    const answer = answers.flatMap((one, i) =>
      one.type === 'paragraph' ? [...(i > 0 ? [{ text: ' ' }] : []), ...one.content] : [],
    );
    if (asked?.type !== 'paragraph' || inlineText(answer).trim() === '')
      throw new Refused('A question needs its answer', 'Write the question in one ‘p’ and the answer in the next.');
    return { type: 'question and answer', id: this.id(), question: inlineText(asked.content).trim(), answer };
  }

  private call(node: Element, own: Block | undefined): Block {
    const content = this.contentOf(node);
    const at = content.findLastIndex(({ link }) => link !== undefined);
    const link = content[at]?.link;
    const button = (content[at]?.text ?? '').trim();
    if (!link || button === '')
      throw new Refused('A call to action needs a button', 'Write its words in an ‘a’ with an address.');
    const { size = undefined, side = undefined } = own?.type === 'call to action' ? own : {};
    return {
      type: 'call to action',
      id: this.id(),
      content: trimInline(content.slice(0, at)),
      button,
      link,
      ...(size ? { size } : {}),
      ...(side ? { side } : {}),
    };
  }

  private contentOf(node: Element): Inline[] {
    const said = this.laidOut(`<p>${innerOf(node)}</p>`);
    return said.flatMap((one) => (one.type === 'paragraph' ? one.content : []));
  }

  private itemsOf(node: Element): Inline[][] {
    const items = this.laidOut(node.outerHTML).flatMap((one) => (one.type === 'list' ? one.items : []));
    if (items.length === 0) throw new Refused('Key points need items', 'Write each in an ‘li’, or take the list out.');
    return items;
  }

  /** A piece of HTML by what its elements are. */
  private laidOut(html: string): Block[] {
    const { parts, left } = laidOutHtml(this.withInside(html), () => this.id());
    const [none] = left;
    if (none !== undefined)
      throw new Refused(
        `There is no place for ${none} in a text`,
        'Take it out; markup of your own is put in on the page.',
      );
    return parts.flatMap((part) => this.blocksOf(part)).map((block) => this.withLinks(block));
  }

  private blocksOf(part: LaidOutPart): Block[] {
    if (part.type === 'video asked') return part.words;
    if (part.type === 'picture asked')
      throw new Refused('A picture cannot be put in as HTML', 'Put it in on the page itself, where its file is kept.');
    return [part];
  }

  /** Links to pages of ours and addresses of mail, as ones that are read like all others. */
  private withInside(html: string): string {
    return html.replace(
      /(<a\b[^<>]*?\shref=")((?:\/articles\/|mailto:)[^"]*)"/gi,
      (_, before: string, to: string) => `${before}${INSIDE}${encodeURIComponent(to)}"`,
    );
  }

  private withLinks<B extends Block>(block: B): B {
    const rich = (content: readonly Inline[]) =>
      rejoinedInline(content.map((one) => (one.link ? { ...one, link: this.linkOf(one.link) } : one)));
    return withTexts(block, { rich, credit: rich });
  }

  private linkOf(link: LinkTarget): LinkTarget {
    if (link.to !== 'address') return link;
    const inside = link.address.startsWith(INSIDE) ? decodeURIComponent(link.address.slice(INSIDE.length)) : null;
    if (inside?.startsWith(PAGE_OF_OURS)) return { to: 'article', article: inside.slice(PAGE_OF_OURS.length) };
    const address = inside ?? link.address;
    return { to: 'address', address, ...(this.sponsored.has(address) ? { sponsored: true } : {}) };
  }

  private id(): string {
    return `read${++this.n}`;
  }
}

const escaped = (text: string) => text.replace(/&/g, '&amp;').replace(/</g, '&lt;');

/** What stands within an element. */
function innerOf(node: Element): string {
  return node.outerHTML.replace(/^<[^>]*>/, '').replace(/<\/[^>]*>$/, '');
}
