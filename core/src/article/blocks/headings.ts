import type { Block, Contents, Heading } from '../block.ts';
import { el, htmlText } from '../inline.ts';
import type { BlockKind } from './kind.ts';

export const heading: BlockKind<Heading> = {
  isStatement: false,
  texts: (block, { plain }) => ({ ...block, text: plain(block.text) }),
  bare: (block) => ({ ...block, text: block.text.replace(/\s+/g, ' ').trim().replace(/[.:]$/, '') }),
  html: (block, { anchor }) => el(`h${block.level}`, { id: anchor(block) }, htmlText(block.text)),
  markdown: (block) => [{ type: 'heading', depth: block.level, children: [{ type: 'text', value: block.text }] }],
  flow: (block, { anchor }) => [{ type: 'heading', level: block.level, text: block.text, anchor: anchor(block) }],
};

const topHeadings = (body: readonly Block[]): Heading[] =>
  body.filter((block): block is Heading => block.type === 'heading' && block.level === 2);

export const contents: BlockKind<Contents> = {
  isStatement: false,
  texts: (block) => block,
  isEmpty: () => false,
  html: (_, { body, anchor }) =>
    el(
      'nav',
      { ariaLabel: 'Contents' },
      el(
        'ol',
        {},
        ...topHeadings(body).map((one) => el('li', {}, el('a', { href: `#${anchor(one)}` }, htmlText(one.text)))),
      ),
    ),
  markdown: () => [],
  flow: (_, { body, anchor }) => {
    const entries = topHeadings(body).map((one) => ({ text: one.text, anchor: anchor(one) }));
    return entries.length === 0 ? [] : [{ type: 'contents', entries }];
  },
  editing: {
    name: 'contents',
    write: () => ({ label: [], attributes: {}, children: null }),
    read: ({ id }) => ({ type: 'contents', id: id() }),
  },
};
