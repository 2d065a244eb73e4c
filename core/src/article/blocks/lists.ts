import type { List as MarkdownList } from 'mdast';
import type { Inline, KeyPoints, List, RelatedArticles } from '../block.ts';
import { el, htmlInline, htmlText, inlineText, linkAddress, mdParagraph, type Resolve, spansOf } from '../inline.ts';
import { insideOf } from './inside.ts';
import { type BlockKind, hasWords, type ReadBack } from './kind.ts';

export function mdList(items: readonly (readonly Inline[])[], ordered: boolean, resolve: Resolve): MarkdownList {
  return {
    type: 'list',
    ordered,
    spread: false,
    children: items.map((item) => ({ type: 'listItem', spread: false, children: [mdParagraph(item, resolve)] })),
  };
}

const htmlItems = (items: readonly (readonly Inline[])[], resolve: Resolve) =>
  items.map((item) => el('li', {}, ...htmlInline(item, resolve)));

const withWords = <B extends { items: Inline[][] }>(block: B): B => ({
  ...block,
  items: block.items.filter(hasWords),
});

/** The items of lists within a container; a paragraph there is an item too. */
function itemsIn({ inner }: ReadBack): Inline[][] {
  return inner
    .flatMap((block) => (block.type === 'list' ? block.items : block.type === 'paragraph' ? [block.content] : []))
    .filter(hasWords);
}

export const list: BlockKind<List> = {
  isStatement: true,
  texts: (block, { rich }) => ({ ...block, items: block.items.map(rich) }),
  bare: withWords,
  html: ({ ordered, items }, { resolve }) => el(ordered ? 'ol' : 'ul', {}, ...htmlItems(items, resolve)),
  markdown: ({ items, ordered }, { resolve }) => [mdList(items, ordered, resolve)],
  flow: ({ items, ordered }, { resolve }) => [
    { type: 'list', ordered, items: items.map((item) => spansOf(item, resolve)) },
  ],
};

export const keyPoints: BlockKind<KeyPoints> = {
  isStatement: true,
  texts: (block, { rich }) => ({ ...block, items: block.items.map(rich) }),
  bare: withWords,
  html: ({ items }, { resolve }) => el('ul', { className: ['key-points'] }, ...htmlItems(items, resolve)),
  markdown: ({ items }, { resolve }) => [mdList(items, false, resolve)],
  flow: ({ items }, { resolve }) => [
    { type: 'list', ordered: false, items: items.map((item) => spansOf(item, resolve)) },
  ],
  editing: {
    name: 'key-points',
    write: ({ items }) => ({ label: [], attributes: {}, children: [mdList(items, false, insideOf)] }),
    read: (read) => {
      const items = itemsIn(read);
      return items.length > 0 ? { type: 'key points', id: read.id(), items } : 'a list';
    },
  },
};

/** Items whose links all lead somewhere. */
const reachable = ({ items }: RelatedArticles, resolve: Resolve) =>
  items.filter((item) => item.every(({ link }) => link === undefined || linkAddress(link, resolve) !== null));

export const relatedArticles: BlockKind<RelatedArticles> = {
  isStatement: false,
  texts: (block, { plain, rich }) => ({ ...block, heading: plain(block.heading), items: block.items.map(rich) }),
  bare: withWords,
  isEmpty: ({ items }) => items.length === 0,
  html: (block, { resolve }) => {
    const items = reachable(block, resolve);
    if (items.length === 0) return null;
    return el(
      'nav',
      { className: ['related'], ariaLabel: block.heading },
      el('p', {}, el('strong', {}, htmlText(block.heading))),
      el('ul', {}, ...htmlItems(items, resolve)),
    );
  },
  markdown: (block, { resolve }) => {
    const items = reachable(block, resolve);
    if (items.length === 0) return [];
    return [mdParagraph([{ text: block.heading, marks: ['strong'] }], resolve), mdList(items, false, resolve)];
  },
  flow: (block, { resolve }) => {
    const items = reachable(block, resolve);
    if (items.length === 0) return [];
    return [
      { type: 'paragraph', look: 'plain', spans: [{ text: block.heading, strong: true }] },
      { type: 'list', ordered: false, items: items.map((item) => spansOf(item, resolve)) },
    ];
  },
  editing: {
    name: 'related-articles',
    write: ({ heading, items }) => ({
      label: [{ text: heading }],
      attributes: {},
      children: [mdList(items, false, insideOf)],
    }),
    read: (read) => {
      const items = itemsIn(read);
      const heading = inlineText(read.label).trim();
      return items.length > 0 && heading !== ''
        ? { type: 'related articles', id: read.id(), heading, items }
        : 'its heading in square brackets and a list of articles';
    },
  },
};
