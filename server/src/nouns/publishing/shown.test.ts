import { articleHtml, articleMarkdown, type Block, blocksHtml, blocksMarkdown, type Resolve } from '@grivo/core';
import { expect, test } from 'vitest';
import { besideSent, shownParts } from './shown.ts';

const resolve: Resolve = {
  file: () => 'https://strings.example/p.webp',
  article: () => 'https://strings.example/bows',
};
const words = (text: string) => [{ text }];

/** One of every kind a blog shows, those that take something from the whole among them. */
const EVERY: Block[] = [
  {
    type: 'paragraph',
    id: 'p',
    content: [{ text: 'Gut ' }, { text: 'answers', marks: ['strong'] }, { text: ' sooner.' }],
  },
  { type: 'contents', id: 'n' },
  { type: 'heading', id: 'h', level: 2, text: 'Strings of gut' },
  { type: 'key points', id: 'k', items: [words('Tune it'), words('Play it')] },
  {
    type: 'list',
    id: 'l',
    ordered: true,
    items: [words('One'), [{ text: 'Two', link: { to: 'article', article: 'x' } }]],
  },
  { type: 'quote', id: 'q', content: words('Play slowly'), credit: words('A teacher') },
  { type: 'heading', id: 'h2', level: 2, text: 'Tension' },
  {
    type: 'table',
    id: 't',
    caption: words('Tension'),
    head: [words('String'), words('kg')],
    rows: [[words('G'), words('4.1')]],
  },
  {
    type: 'figure',
    id: 'f',
    file: 'a'.repeat(64),
    width: 10,
    height: 10,
    alternative: 'A bow.',
    caption: words('Ours'),
    lead: false,
  },
  { type: 'question and answer', id: 'qa', question: 'Which one?', answer: words('Gut.') },
  { type: 'video', id: 'v', address: 'https://films.example/1', title: 'Bowing' },
  {
    type: 'chart',
    id: 'c',
    form: 'bar',
    labels: ['G'],
    series: [{ name: 'kg', values: [4.1] }],
    alternative: 'One bar.',
  },
  { type: 'closing', id: 'z', content: words('That is all.') },
  {
    type: 'call to action',
    id: 'a',
    content: words('Come in.'),
    button: 'Visit',
    link: { to: 'address', address: 'https://shop.example' },
  },
  {
    type: 'related articles',
    id: 'r',
    heading: 'Read next',
    items: [[{ text: 'Bows', link: { to: 'article', article: 'x' } }]],
  },
  { type: 'standing text', id: 's', content: words('From our workshop.') },
  { type: 'disclosure', id: 'd', content: words('We sell strings.') },
  { type: 'placeholder', id: 'w', wants: 'picture', says: 'A fiddle' },
];

const told = (texts: string[], reads: 'HTML' | 'Markdown') =>
  shownParts(texts, reads)
    .flat()
    .map(({ text }) => text.replace(/\s+/g, ' ').trim());

test('blocks read back one by one say what the whole says: none seems changed that nobody touched', () => {
  const body = EVERY;
  expect(
    told(
      blocksHtml({ body }, resolve).map(({ text }) => text),
      'HTML',
    ),
  ).toEqual(told([articleHtml({ body }, resolve)], 'HTML'));
  expect(
    told(
      blocksMarkdown({ body }, resolve).map(({ text }) => text),
      'Markdown',
    ),
  ).toEqual(told([articleMarkdown({ body }, resolve)], 'Markdown'));
});

test('what lies in a fold is read as what it is', () => {
  const body: Block[] = [EVERY[0]!, { type: 'fold', id: 'o', words: 'Read on' }, EVERY[2]!, EVERY[4]!, EVERY[12]!];
  expect(
    told(
      blocksHtml({ body }, resolve).map(({ text }) => text),
      'HTML',
    ),
  ).toEqual(told([articleHtml({ body }, resolve)], 'HTML'));
});

test('where a link leads is part of what is told, and a text that lies too deep is one part', () => {
  const linking = (address: string) => `<p><a href="${address}">Bows</a></p>`;
  const [one, two] = shownParts([linking('https://a.example/1'), linking('https://a.example/2')], 'HTML');
  expect(one![0]!.text).not.toBe(two![0]!.text);
  expect(shownParts([`${'> '.repeat(500)}x`], 'Markdown')[0]).toHaveLength(1);
});

test('a text as hostile as can be is set beside ours, or refused with the reason', () => {
  const sent = [{ id: 'p', text: `<p>${'the string '.repeat(400)}</p>` }];
  const beside = (there: string) => besideSent({ sent, there, reads: 'HTML', own: [] });
  for (const there of [`<p>${'the '.repeat(400_000)}</p>`, '<p>'.repeat(600_000)])
    expect(beside(there).some(({ changed }) => changed)).toBe(true);
  expect(beside('<p>a</p>'.repeat(9_000)).at(-1)).toMatchObject({ changed: true });
  expect(() => beside('<p>a</p>'.repeat(20_000))).toThrow('more than 10,000 parts');
});
