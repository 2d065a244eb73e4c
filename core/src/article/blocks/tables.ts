import type { ElementContent } from 'hast';
import type { Table as MarkdownTable, TableRow } from 'mdast';
import type { Chart, Inline, Table } from '../block.ts';
import {
  el,
  emphasised,
  htmlInline,
  htmlText,
  inlineText,
  mdParagraph,
  phrasing,
  plainInline,
  type Resolve,
  spansOf,
} from '../inline.ts';
import { insideOf } from './inside.ts';
import { type BlockKind, type FlowPart, hasWords } from './kind.ts';

interface Grid {
  head: readonly (readonly Inline[])[];
  rows: readonly (readonly (readonly Inline[])[])[];
}

function htmlGrid({ head, rows }: Grid, caption: ElementContent[], resolve: Resolve) {
  const row = (tag: 'th' | 'td', cells: Grid['head']) =>
    el('tr', {}, ...cells.map((cell) => el(tag, tag === 'th' ? { scope: 'col' } : {}, ...htmlInline(cell, resolve))));
  return el(
    'table',
    {},
    ...(caption.length > 0 ? [el('caption', {}, ...caption)] : []),
    el('thead', {}, row('th', head)),
    el('tbody', {}, ...rows.map((cells) => row('td', cells))),
  );
}

function mdGrid({ head, rows }: Grid, resolve: Resolve): MarkdownTable {
  const row = (cells: Grid['head']): TableRow => ({
    type: 'tableRow',
    children: cells.map((cell) => ({ type: 'tableCell', children: phrasing(cell, resolve) })),
  });
  return { type: 'table', children: [row(head), ...rows.map(row)] };
}

function flowGrid({ head, rows }: Grid, caption: readonly Inline[], resolve: Resolve): FlowPart {
  const spans = (cell: readonly Inline[]) => spansOf(cell, resolve);
  return { type: 'table', head: head.map(spans), rows: rows.map((row) => row.map(spans)), caption: spans(caption) };
}

export const table: BlockKind<Table> = {
  isStatement: true,
  texts: (block, { rich }) => ({
    ...block,
    ...(block.caption ? { caption: rich(block.caption) } : {}),
    head: block.head.map(rich),
    rows: block.rows.map((row) => row.map(rich)),
  }),
  words: ({ caption, head, rows }) =>
    [inlineText(caption ?? []), ...[head, ...rows].map((row) => row.map(inlineText).join(' | '))]
      .filter((line) => line !== '')
      .join('\n'),
  bare: ({ caption, ...block }) => ({ ...block, ...(caption && hasWords(caption) ? { caption } : {}) }),
  isEmpty: ({ rows }) => rows.length === 0,
  html: (block, { resolve }) => htmlGrid(block, htmlInline(block.caption ?? [], resolve), resolve),
  markdown: (block, { resolve }) => [
    ...(block.caption ? [mdParagraph(emphasised(block.caption), resolve)] : []),
    mdGrid(block, resolve),
  ],
  flow: (block, { resolve }) => [flowGrid(block, block.caption ?? [], resolve)],
  editing: {
    name: 'table',
    write: (block) =>
      block.caption ? { label: block.caption, attributes: {}, children: [mdGrid(block, insideOf)] } : null,
    read: ({ inner, label }) => {
      const found = inner.find((block) => block.type === 'table');
      if (!found) return 'a table';
      return { ...found, ...(hasWords(label) ? { caption: label } : {}) };
    },
  },
};

function gridOf({ labels, series }: Chart): Grid {
  return {
    head: [[], ...labels.map(plainInline)],
    rows: series.map(({ name, values }) => [plainInline(name), ...values.map((value) => plainInline(String(value)))]),
  };
}

/** What the figures of a chart are of: the names of its series and from where to where they go. */
const whatOf = ({ labels, series }: Chart): string =>
  [
    series
      .map(({ name }) => name)
      .filter(Boolean)
      .join(', '),
    [labels[0], labels.at(-1)].join(' – '),
  ]
    .filter(Boolean)
    .join(': ');

/** What stands below a chart: its caption, else what it shows. */
const below = ({ caption, alternative }: Chart): Inline[] =>
  caption && hasWords(caption) ? caption : plainInline(alternative);

export const chart: BlockKind<Chart> = {
  isStatement: false,
  texts: (block, { rich, plain, aside }) => ({
    ...block,
    labels: block.labels.map(aside),
    series: block.series.map((one) => ({ ...one, name: aside(one.name) })),
    ...(block.caption ? { caption: rich(block.caption) } : {}),
    alternative: (block.caption ? aside : plain)(block.alternative),
  }),
  words: ({ caption }) => inlineText(caption ?? []),
  isEmpty: () => false,
  html: (block, { resolve }) => {
    const grid = htmlGrid(gridOf(block), [], resolve);
    const note = el('figcaption', {}, ...htmlInline(below(block), resolve));
    const picture = resolve.chart?.(block.id);
    const src = picture ? resolve.file(picture.file) : '';
    if (!picture || src === '') return el('figure', {}, grid, note);
    const { width, height } = picture;
    const image = el('img', { src, alt: block.alternative, width, height });
    // The figures themselves, for whoever does not see the picture and whoever wants to know exactly.
    const figures = el('details', {}, el('summary', {}, htmlText(whatOf(block))), grid);
    return el('figure', { className: ['chart'] }, image, figures, note);
  },
  markdown: (block, { resolve }) => {
    const picture = resolve.chart?.(block.id);
    const url = picture ? resolve.file(picture.file) : '';
    const image =
      url === ''
        ? null
        : { type: 'paragraph' as const, children: [{ type: 'image' as const, url, alt: block.alternative }] };
    return [...(image ? [image] : []), mdGrid(gridOf(block), resolve), mdParagraph(below(block), resolve)];
  },
  flow: (block, { resolve }) => {
    const picture = resolve.chart?.(block.id);
    const { alternative } = block;
    return [
      ...(picture ? [{ type: 'picture' as const, ...picture, alternative, note: [], share: 1 }] : []),
      flowGrid(gridOf(block), below(block), resolve),
    ];
  },
  editing: {
    name: 'chart',
    named: true,
    write: (block) => ({ label: plainInline(block.alternative), attributes: { id: block.id }, children: null }),
    read: ({ own, label }) => ({ ...(own as Chart), alternative: inlineText(label) }),
  },
};
