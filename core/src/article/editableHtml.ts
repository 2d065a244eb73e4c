import type { Element, ElementContent, Root, RootContent } from 'hast';
import { toHtml } from 'hast-util-to-html';
import type { Block } from './block.ts';
import { kindOf } from './blocks/all.ts';
import { insideOf } from './blocks/inside.ts';
import { hereOf } from './here.ts';
import { el, htmlText } from './inline.ts';

/** Names the block an element of an edited text stands for, as an attribute. */
export const BLOCK_NAMED = 'data-block';

/** Parts of an element that stand on lines of their own. */
const ON_LINES = /(?<=>)<(?=(?:li|tr|thead|tbody|caption|figcaption|footer|p|ul)[ >]|\/(?:ul|ol|table|thead|tbody)>)/g;

/**
 * The body as HTML to be edited: each block as readers see it, in elements that name it by `data-block`. What stands outside
 * of it (files, charts, players, the owner's markup) is shown, and is the block it names as long as it stays as it is.
 */
export function editableHtml(body: readonly Block[]): string {
  const here = hereOf(body, insideOf, true);
  return body
    .map((block) => htmlOf(block, shownAs(block) ?? kindOf(block).html(withoutCredit(block), here)))
    .join('\n\n');
}

/** Markup of the owner's own is shown as the letters it is: elements that are left open in it would take in what follows. */
function shownAs(block: Block): RootContent | null {
  return block.type === "owner's markup" ? el('pre', {}, htmlText(block.markup)) : null;
}

/** The credit of a picture belongs to its file, not to the text below it. */
function withoutCredit(block: Block): Block {
  if (block.type !== 'figure') return block;
  const { credit: _, ...rest } = block;
  return rest;
}

function htmlOf(block: Block, node: RootContent | null): string {
  const named = { dataBlock: block.id };
  const children = (inner: RootContent | null) => (inner ? [inner as ElementContent] : [htmlText(block.type)]);
  const shown: Element =
    node?.type === 'element'
      ? { ...node, properties: { ...withoutId(node.properties), ...named } }
      : el('div', named, ...children(node));
  return toHtml({ type: 'root', children: [shown] } satisfies Root).replace(ON_LINES, '\n<');
}

/** Where links within the article lead is made of the headings' words. */
function withoutId({ id: _, ...properties }: Element['properties']): Element['properties'] {
  return properties;
}
