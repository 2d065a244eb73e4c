import type { Quote } from '../block.ts';
import { el, emphasised, htmlInline, inlineText, mdParagraph, spansOf } from '../inline.ts';
import { insideOf } from './inside.ts';
import { type BlockKind, hasWords } from './kind.ts';

export const quote: BlockKind<Quote> = {
  isStatement: true,
  texts: (block, { rich, credit }) => ({
    ...block,
    content: rich(block.content),
    ...(block.credit ? { credit: credit(block.credit) } : {}),
  }),
  words: ({ content }) => inlineText(content),
  bare: ({ credit, ...block }) => ({ ...block, ...(credit && hasWords(credit) ? { credit } : {}) }),
  html: ({ content, credit }, { resolve }) =>
    el(
      'blockquote',
      {},
      el('p', {}, ...htmlInline(content, resolve)),
      ...(credit ? [el('footer', {}, el('cite', {}, ...htmlInline(credit, resolve)))] : []),
    ),
  markdown: ({ content, credit }, { resolve }) => [
    {
      type: 'blockquote',
      children: [mdParagraph(content, resolve), ...(credit ? [mdParagraph(emphasised(credit), resolve)] : [])],
    },
  ],
  flow: ({ content, credit }, { resolve }) => [
    { type: 'paragraph', look: 'quote', spans: spansOf(content, resolve) },
    ...(credit
      ? [{ type: 'paragraph' as const, look: 'note' as const, spans: [{ text: '— ' }, ...spansOf(credit, resolve)] }]
      : []),
  ],
  editing: {
    name: 'quotation',
    write: ({ content, credit }) =>
      credit ? { label: credit, attributes: {}, children: [mdParagraph(content, insideOf)] } : null,
    read: ({ id, inner, label }) => {
      const content = inner.flatMap((one) => (one.type === 'paragraph' || one.type === 'quote' ? one.content : []));
      return hasWords(content)
        ? { type: 'quote', id: id(), content, ...(hasWords(label) ? { credit: label } : {}) }
        : 'what was said, and who said it in square brackets';
    },
  },
};
