import type { Block, BlockType, Inline } from '../block.ts';

/** Words with a mark and a link to an article of ours. */
export const RICH: Inline[] = [
  { text: 'dark ' },
  { text: 'rosin', marks: ['strong'], link: { to: 'article', article: 'out' } },
];
export const words = (text: string): Inline[] => [{ text }];

/** One of each kind of block, on strings and bows: what every form of an article is tried on. */
export const EACH: { [T in BlockType]: Extract<Block, { type: T }> } = {
  heading: { type: 'heading', id: 'b1', level: 2, text: 'Which rosin' },
  paragraph: { type: 'paragraph', id: 'b2', content: RICH },
  list: { type: 'list', id: 'b3', ordered: true, items: [words('loosen'), RICH] },
  table: { type: 'table', id: 'b4', caption: RICH, head: [words('String'), []], rows: [[words('gut'), RICH]] },
  figure: {
    type: 'figure',
    id: 'b5',
    file: 'a'.repeat(64),
    width: 400,
    height: 300,
    alternative: 'A cake of rosin',
    caption: RICH,
    credit: words('Drawn by A. Hand'),
    link: { to: 'article', article: 'out' },
    size: 'small',
    side: 'right',
    lead: false,
  },
  quote: { type: 'quote', id: 'b6', content: RICH, credit: words('A maker') },
  video: { type: 'video', id: 'b7', address: 'https://films.example/7', title: 'Rehairing' },
  chart: {
    type: 'chart',
    id: 'b8',
    form: 'bar',
    labels: ['1990'],
    series: [{ name: 'bows', values: [12] }],
    caption: RICH,
    alternative: 'Twelve bows',
  },
  'key points': { type: 'key points', id: 'b9', items: [words('wipe it'), RICH] },
  'question and answer': { type: 'question and answer', id: 'b10', question: 'How much?', answer: RICH },
  'call to action': {
    type: 'call to action',
    id: 'b11',
    content: RICH,
    button: 'To the shop',
    link: { to: 'address', address: 'https://shop.example/' },
    size: 'full',
    side: 'middle',
  },
  closing: { type: 'closing', id: 'b12', content: RICH },
  'standing text': { type: 'standing text', id: 'b13', content: RICH },
  disclosure: { type: 'disclosure', id: 'b14', content: RICH },
  fold: { type: 'fold', id: 'b15', words: 'Read on' },
  'related articles': { type: 'related articles', id: 'b16', heading: 'More', items: [RICH] },
  "owner's markup": { type: "owner's markup", id: 'b17', markup: '<i>mine</i>' },
  contents: { type: 'contents', id: 'b18' },
  placeholder: { type: 'placeholder', id: 'b19', wants: 'picture', says: 'the cake from above' },
};
