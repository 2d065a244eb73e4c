import { articleNodes, type Block } from '@grivo/core';
import { renderToStaticMarkup } from 'react-dom/server';
import { describe, expect, it } from 'vitest';
import { Drawn } from './Drawn.tsx';

const blocks: Record<string, [Block, string[]]> = {
  heading: [{ type: 'heading', id: '1', level: 3, text: 'Tuning pegs' }, ['<h3', 'Tuning pegs']],
  paragraph: [
    {
      type: 'paragraph',
      id: '2',
      content: [
        { text: 'Rosin ' },
        { text: 'dust', marks: ['strong'], link: { to: 'address', address: 'https://a.example/' } },
      ],
    },
    ['<strong>dust</strong>', 'href="https://a.example/"'],
  ],
  'standing text': [
    { type: 'standing text', id: '3', content: [{ text: 'Made from a talk, by A. Maker.' }] },
    ['class="standing"', 'by A. Maker'],
  ],
  'ordered list': [
    { type: 'list', id: '4', ordered: true, items: [[{ text: 'slacken', link: { to: 'article', article: 'x' } }]] },
    ['<ol>', 'href="/articles/x"'],
  ],
  table: [
    {
      type: 'table',
      id: '5',
      caption: [{ text: 'Strings' }],
      head: [[{ text: 'name' }], [{ text: 'gauge' }]],
      rows: [[[{ text: 'E' }], [{ text: '0.26' }]]],
    },
    ['<caption>Strings', '<th scope="col">gauge', '<td>0.26'],
  ],
  figure: [
    {
      type: 'figure',
      id: '6',
      file: 'f',
      width: 4,
      height: 3,
      alternative: 'A bow',
      credit: [{ text: 'B. Seer' }],
      lead: false,
    },
    ['src="/api/files/f"', 'alt="A bow"', 'B. Seer'],
  ],
  quote: [
    { type: 'quote', id: '7', content: [{ text: 'Never pull.' }], credit: [{ text: 'C. Luthier' }] },
    ['<blockquote>', 'C. Luthier'],
  ],
  video: [
    { type: 'video', id: '8', address: 'https://v.example/1', title: 'A bridge set', player: 'https://v.example/p' },
    ['A bridge set', 'The video stands here'],
  ],
  chart: [
    {
      type: 'chart',
      id: '9',
      form: 'bar',
      labels: ['2020'],
      series: [{ name: 'bows', values: [7] }],
      alternative: 'Bows sold',
    },
    ['<td>7', 'Bows sold'],
  ],
  'key points': [
    { type: 'key points', id: '10', items: [[{ text: 'Keep it dry.' }]] },
    ['class="key-points"', 'Keep it dry.'],
  ],
  'question and answer': [
    { type: 'question and answer', id: '11', question: 'How tight?', answer: [{ text: 'A pencil fits.' }] },
    ['How tight?', 'A pencil fits.'],
  ],
  'call to action': [
    {
      type: 'call to action',
      id: '12',
      content: [{ text: 'Strings are here.' }],
      button: 'See them',
      link: { to: 'address', address: 'https://s.example/' },
    },
    ['href="https://s.example/"', 'See them'],
  ],
  closing: [
    { type: 'closing', id: '14', content: [{ text: 'So wait a day.' }] },
    ['class="closing"', 'So wait a day.'],
  ],
  disclosure: [
    { type: 'disclosure', id: '15', content: [{ text: 'A machine wrote this.' }] },
    ['class="disclosure"', 'A machine wrote this.'],
  ],
  fold: [{ type: 'fold', id: '16', words: 'Read on' }, ['class="stands"', 'Read on']],
  'related articles': [
    {
      type: 'related articles',
      id: '17',
      heading: 'Next',
      items: [[{ text: 'Pegs', link: { to: 'article', article: 'p' } }]],
    },
    ['class="related"', 'href="/articles/p"'],
  ],
  placeholder: [
    { type: 'placeholder', id: '18', wants: 'table', says: 'gauges' },
    ['class="stands"', 'A table is to stand here: gauges'],
  ],
  'picture at a side': [
    {
      type: 'figure',
      id: '19',
      file: 'g',
      width: 4,
      height: 3,
      alternative: 'A peg',
      lead: false,
      size: 'small',
      side: 'left',
    },
    ['max-width:35%', 'float:left'],
  ],
  "owner's markup": [
    { type: "owner's markup", id: '13', markup: '<script>alert(1)</script>' },
    ['&lt;script&gt;', 'Your own markup'],
  ],
};
const all = Object.values(blocks).map(([block]) => block);

const drawn = (body: Block[], ringed: string[] = []) =>
  articleNodes({ body }, { file: (digest) => `/api/files/${digest}`, article: (id) => `/articles/${id}` }, true)
    .map(({ node }) => renderToStaticMarkup(<Drawn node={node} ringed={ringed} />))
    .join('\n');

describe('the page of an article', () => {
  it.each(Object.entries(blocks))('draws a %s whole', (_, [block, parts]) => {
    const html = drawn([block]);
    for (const part of parts) expect(html).toContain(part);
    expect(html).not.toMatch(/<(?:iframe|video|script)\b/);
  });
  it('lists the contents where they stand', () => {
    const html = drawn([
      { type: 'contents', id: 'c' },
      { type: 'heading', id: 'h', level: 2, text: 'Setting the post' },
      ...all,
    ]);
    expect(html).toContain('<nav aria-label="Contents"><ol><li><a href="#setting-the-post"');
  });
  it('rings a figure wherever it stands', () => {
    expect(drawn(all, ['0.26'])).toMatch(/<td><span[^>]*>0\.26<\/span><\/td>/);
  });
  it('rings all that is named, in whatever order, each as long as it is', () => {
    const body: Block[] = [
      { type: 'paragraph', id: 'p', content: [{ text: 'Take 40 grams, says Ada, and 400 more.' }] },
    ];
    const rings = [...drawn(body, ['Ada', '400', '40', '40 grams', 'gone']).matchAll(/<span[^>]*>([^<]*)<\/span>/g)];
    expect(rings.map(([, words]) => words)).toEqual(['40 grams', 'Ada', '400']);
  });
});
