import { describe, expect, test } from 'vitest';
import type { Block, Inline } from './block.ts';
import { articleFlow } from './flow.ts';
import { linkedArticles } from './linked.ts';

const own = (article: string): Inline => ({ text: article, link: { to: 'article', article } });
const resolve = {
  file: (digest: string) => digest,
  article: (id: string) => (id === 'out' ? 'https://journal.example/out' : null),
};
const flow = (...body: Block[]) => articleFlow({ body }, resolve);

describe('the flow of an article', () => {
  test('keeps marks and links; a link that leads nowhere yet is words', () => {
    const [paragraph] = flow({
      type: 'paragraph',
      id: 'p',
      content: [
        { text: 'salt', marks: ['strong', 'emphasis'] },
        own('out'),
        own('not out'),
        { text: 'shop', link: { to: 'address', address: 'javascript:alert(1)' } },
      ],
    });
    expect(paragraph).toEqual({
      type: 'paragraph',
      look: 'plain',
      spans: [
        { text: 'salt', strong: true, emphasis: true },
        { text: 'out', href: 'https://journal.example/out' },
        { text: 'not out' },
        { text: 'shop' },
      ],
    });
  });

  test('leads from the contents to the headings they name, also where two are called alike', () => {
    const heading = (id: string, level: 2 | 3): Block => ({ type: 'heading', id, level, text: 'Salt' });
    const [contents, ...headings] = flow(
      { type: 'contents', id: 'c' },
      heading('a', 2),
      heading('b', 3),
      heading('d', 2),
    );
    const anchors = headings.map((part) => (part.type === 'heading' ? part.anchor : ''));
    expect(new Set(anchors).size).toBe(3);
    expect(contents).toEqual({
      type: 'contents',
      entries: [
        { text: 'Salt', anchor: anchors[0] },
        { text: 'Salt', anchor: anchors[2] },
      ],
    });
    expect(flow({ type: 'contents', id: 'c' })).toEqual([]);
  });

  test('tells in words what only a page can show, and leaves the owner’s markup out', () => {
    const said = flow(
      { type: 'video', id: 'v', address: 'https://videos.example/1', title: 'One cabbage' },
      {
        type: 'chart',
        id: 'h',
        form: 'bar',
        labels: ['week 1', 'week 2'],
        series: [{ name: 'sour', values: [3.9, 3.4] }],
        alternative: 'It grows sour.',
      },
      { type: "owner's markup", id: 'o', markup: '<b>x</b>' },
      { type: 'key points', id: 'k', items: [[{ text: 'Salt it' }]] },
      {
        type: 'call to action',
        id: 'a',
        content: [{ text: 'Come by.' }],
        button: 'The shop',
        link: { to: 'address', address: 'https://shop.example/' },
      },
      { type: 'quote', id: 'q', content: [{ text: 'It hums.' }], credit: [{ text: 'Ines' }] },
    );
    expect(said).toEqual([
      { type: 'paragraph', look: 'plain', spans: [{ text: 'One cabbage', href: 'https://videos.example/1' }] },
      {
        type: 'table',
        head: [[], [{ text: 'week 1' }], [{ text: 'week 2' }]],
        rows: [[[{ text: 'sour' }], [{ text: '3.9' }], [{ text: '3.4' }]]],
        caption: [{ text: 'It grows sour.' }],
      },
      { type: 'list', ordered: false, items: [[{ text: 'Salt it' }]] },
      {
        type: 'paragraph',
        look: 'plain',
        spans: [{ text: 'Come by.' }, { text: ' ' }, { text: 'The shop', href: 'https://shop.example/' }],
      },
      { type: 'paragraph', look: 'quote', spans: [{ text: 'It hums.' }] },
      { type: 'paragraph', look: 'note', spans: [{ text: '— ' }, { text: 'Ines' }] },
    ]);
  });
});

test('links to our articles are found wherever they stand, each once', () => {
  const body: Block[] = [
    { type: 'paragraph', id: 'p', content: [own('a'), own('b')] },
    { type: 'list', id: 'l', ordered: false, items: [[own('c')], [own('a')]] },
    { type: 'standing text', id: 's', content: [own('d')] },
    { type: 'question and answer', id: 'q', question: 'Why?', answer: [own('e')] },
    { type: 'paragraph', id: 'x', content: [{ text: 'x', link: { to: 'address', address: 'https://a.example' } }] },
  ];
  expect(linkedArticles({ body })).toEqual(['a', 'b', 'c', 'd', 'e']);
});
