import type { Block, BlockType, Evidence, LinkTarget, Vouched } from '@grivo/core';
import { type Node, type NodeSpec, Schema } from 'prosemirror-model';
import { tableNodes } from 'prosemirror-tables';

/** What every block of an article carries while it is edited. */
export interface BlockAttributes {
  /** Null until the block has an id of its own. */
  id: string | null;
  evidence: Evidence[] | null;
  /** Words somebody answers for. */
  vouched: Vouched[] | null;
}

const ATTRIBUTES = { id: { default: null }, evidence: { default: null }, vouched: { default: null } } as const;

/** Blocks that are changed as a whole, by a form, and not typed in. */
export const WHOLE = [
  'figure',
  'video',
  'chart',
  'call to action',
  'fold',
  'related articles',
  "owner's markup",
  'contents',
  'placeholder',
] as const satisfies readonly BlockType[];
export type WholeBlock = Extract<Block, { type: (typeof WHOLE)[number] }>;

/** A text by itself; `type` is the block's in an article. */
function prose(type: BlockType, tag: string, className?: string): NodeSpec {
  return {
    group: 'block',
    content: 'inline*',
    attrs: ATTRIBUTES,
    parseDOM: className ? [{ tag: `${tag}.${className}`, priority: 60 }] : [{ tag }],
    toDOM: () => (className ? [tag, { class: className }, 0] : [tag, 0]),
    block: type,
  };
}

/** A part of a block that is typed in, with what it is called while it is empty. */
function part(tag: string, className: string, called: string, plain = false): NodeSpec {
  return {
    content: plain ? 'text*' : 'inline*',
    ...(plain ? { marks: '' } : {}),
    isolating: true,
    toDOM: () => [tag, { class: className }, 0],
    called,
  };
}

const HEADINGS = [1, 2, 3, 4, 5, 6].map((n) => ({ tag: `h${n}`, attrs: { level: Math.min(4, Math.max(2, n)) } }));

/** The article's body as a document of the editor: a node a block, each with its id and what it rests on. */
export const schema = new Schema({
  nodes: {
    doc: { content: 'block+' },
    paragraph: prose('paragraph', 'p'),
    closing: prose('closing', 'p', 'closing'),
    standing_text: prose('standing text', 'p', 'standing'),
    disclosure: prose('disclosure', 'p', 'disclosure'),
    heading: {
      group: 'block',
      content: 'text*',
      marks: '',
      attrs: { ...ATTRIBUTES, level: { default: 2 } },
      defining: true,
      parseDOM: HEADINGS,
      toDOM: (node) => [`h${node.attrs['level']}`, 0],
      block: 'heading',
    },
    list: {
      group: 'block',
      content: 'item+',
      attrs: { ...ATTRIBUTES, ordered: { default: false } },
      parseDOM: [
        { tag: 'ul', attrs: { ordered: false } },
        { tag: 'ol', attrs: { ordered: true } },
      ],
      toDOM: (node) => [node.attrs['ordered'] ? 'ol' : 'ul', 0],
      block: 'list',
    },
    key_points: {
      group: 'block',
      content: 'item+',
      attrs: ATTRIBUTES,
      parseDOM: [{ tag: 'ul.key-points', priority: 60 }],
      toDOM: () => ['ul', { class: 'key-points' }, 0],
      block: 'key points',
    },
    item: { content: 'inline*', defining: true, parseDOM: [{ tag: 'li' }], toDOM: () => ['li', 0] },
    quote: {
      group: 'block',
      content: 'quote_words quote_credit',
      attrs: ATTRIBUTES,
      isolating: true,
      parseDOM: [{ tag: 'blockquote' }],
      toDOM: () => ['blockquote', 0],
      block: 'quote',
    },
    quote_words: {
      ...part('p', 'quote-words', 'The words'),
      parseDOM: [{ tag: 'p', context: 'quote/', priority: 70 }],
    },
    quote_credit: part('footer', 'quote-credit', 'Who said it, and where'),
    question_and_answer: {
      group: 'block',
      content: 'question answer',
      attrs: ATTRIBUTES,
      isolating: true,
      toDOM: () => ['div', { class: 'question-and-answer' }, 0],
      block: 'question and answer',
    },
    question: part('h3', 'question', 'The question', true),
    answer: part('p', 'answer', 'The answer'),
    table_block: {
      group: 'block',
      content: 'table_caption table',
      attrs: ATTRIBUTES,
      isolating: true,
      toDOM: () => ['div', { class: 'table-block' }, 0],
      block: 'table',
    },
    table_caption: part('p', 'caption-of-table', 'What the table shows'),
    ...tableNodes({ cellContent: 'inline*', cellAttributes: {} }),
    whole: {
      group: 'block',
      atom: true,
      selectable: true,
      draggable: true,
      attrs: { ...ATTRIBUTES, block: {} },
      toDOM: (node) => ['div', { class: 'whole-block', 'data-whole': (node.attrs['block'] as WholeBlock).type }],
    },
    text: { group: 'inline' },
  },
  marks: {
    link: {
      attrs: { to: {} },
      inclusive: false,
      parseDOM: [
        {
          tag: 'a[href]',
          getAttrs: (dom) => {
            const address = dom.getAttribute('href') ?? '';
            return /^(?:https?:|mailto:)/i.test(address)
              ? { to: { to: 'address', address } satisfies LinkTarget }
              : false;
          },
        },
      ],
      toDOM: (mark) => ['a', { title: leadsTo(mark.attrs['to'] as LinkTarget) }, 0],
    },
    strong: {
      parseDOM: [
        { tag: 'strong' },
        // What some word processors wrap a whole page in is no emphasis.
        { tag: 'b', getAttrs: (dom) => dom.style.fontWeight !== 'normal' && null },
        { style: 'font-weight', getAttrs: (value) => /^(?:bold(?:er)?|[6-9]\d\d)$/.test(value) && null },
      ],
      toDOM: () => ['strong', 0],
    },
    emphasis: {
      parseDOM: [{ tag: 'i' }, { tag: 'em' }, { style: 'font-style=italic' }],
      toDOM: () => ['em', 0],
    },
    code: { parseDOM: [{ tag: 'code' }], toDOM: () => ['code', 0] },
  },
});

/** Where a link leads, as people read it. */
export function leadsTo(to: LinkTarget): string {
  return to.to === 'article' ? 'an article of ours' : to.address;
}

/** A block's type in an article. */
export function blockTypeOf(node: Node): BlockType {
  if (node.type === schema.nodes.whole) return (node.attrs['block'] as WholeBlock).type;
  return node.type.spec['block'] as BlockType;
}
