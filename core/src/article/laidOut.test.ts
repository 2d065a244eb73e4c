import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { addressAlone, creditIn, laidOutMarkdown, laidOutPlain } from './laidOut.ts';

/** HTML is read where there is a reader of documents; here only that it is asked. */
const partsOf = (text: string) =>
  laidOutMarkdown(text, (html, id) => ({
    parts: [{ type: 'paragraph', id: id(), content: [{ text: `HTML of ${html.length}` }] }],
    left: ['a form'],
  })).parts;

describe('a finished text in Markdown', () => {
  test('has headings of three levels: what is above or below them is on the nearest', () => {
    const levels = partsOf('# One\n\n## Two\n\n### Three\n\n#### Four\n\n##### Five\n').map((part) =>
      part.type === 'heading' ? part.level : null,
    );
    expect(levels).toEqual([2, 2, 3, 4, 4]);
  });

  test('keeps headings from the second level down, emphasis, code and links to the web alone', () => {
    expect(
      partsOf(
        '# Salt\n\nTwo **percent** of *the* `cabbage`, [as here](https://salt.example/a) and [there](javascript:x).\n\n##### Deep',
      ),
    ).toEqual([
      { type: 'heading', id: 'b1', level: 2, text: 'Salt' },
      {
        type: 'paragraph',
        id: 'b2',
        content: [
          { text: 'Two ' },
          { text: 'percent', marks: ['strong'] },
          { text: ' of ' },
          { text: 'the', marks: ['emphasis'] },
          { text: ' ' },
          { text: 'cabbage', marks: ['code'] },
          { text: ', ' },
          { text: 'as here', link: { to: 'address', address: 'https://salt.example/a' } },
          { text: ' and ' },
          { text: 'there' },
          { text: '.' },
        ],
      },
      { type: 'heading', id: 'b3', level: 4, text: 'Deep' },
    ]);
  });

  test('keeps lists, quotes and tables; pictures are asked for, rules fall away, HTML is read by itself', () => {
    expect(
      partsOf(
        '1. wash\n2. salt\n\n   and wait\n\n> Twenty\n> grams\n\n| Salt | g |\n|---|---|\n| sea | 20 |\n\n---\n\n![A crock](x.png)\n\n<script>alert(1)</script>\n\n<div>Weigh <b>20 g</b> &amp; wait</div>',
      ),
    ).toEqual([
      {
        type: 'list',
        id: 'b1',
        ordered: true,
        items: [[{ text: 'wash' }], [{ text: 'salt' }, { text: ' ' }, { text: 'and wait' }]],
      },
      { type: 'quote', id: 'b2', content: [{ text: 'Twenty grams' }] },
      {
        type: 'table',
        id: 'b3',
        head: [[{ text: 'Salt' }], [{ text: 'g' }]],
        rows: [[[{ text: 'sea' }], [{ text: '20' }]]],
      },
      { type: 'picture asked', id: 'b4', address: 'x.png', alternative: 'A crock' },
      { type: 'paragraph', id: 'b5', content: [{ text: 'HTML of 25' }] },
      { type: 'paragraph', id: 'b6', content: [{ text: 'HTML of 39' }] },
    ]);
  });

  test('whatever is typed becomes blocks with ids of their own, and nothing throws', () => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom('# ', '- ', '> ', '|', '\n', '\n\n', '**', '[a](', ')', '`', 'salt ', '<b>', '1. ')),
        (parts) => {
          const ids = partsOf(parts.join('')).map(({ id }) => id);
          expect(new Set(ids).size).toBe(ids.length);
        },
      ),
      { numRuns: 300 },
    );
  });
});

test('a plain text is parted at empty lines alone', () => {
  expect(
    laidOutPlain('One\r\nline.\r\n\r\n  \n# no heading\n\n\n').parts.map(
      (block) => block.type === 'paragraph' && block.content,
    ),
  ).toEqual([[{ text: 'One line.' }], [{ text: '# no heading' }]]);
});

test('a picture among words comes after them, with its caption and whose it is', () => {
  expect(
    partsOf(
      'Scrape ![the plate](https://a.example/p.jpg "A plate, scraped. Photo: N. Luthier") until it **rings ![](data:image/png;base64,AA==)**.',
    ),
  ).toMatchObject([
    { type: 'paragraph', content: [{ text: 'Scrape ' }, { text: ' until it ' }, { text: 'rings ' }, { text: '.' }] },
    {
      type: 'picture asked',
      address: 'https://a.example/p.jpg',
      alternative: 'the plate',
      caption: 'A plate, scraped.',
      credit: 'Photo: N. Luthier',
    },
    { type: 'picture asked', address: 'data:image/png;base64,AA==', alternative: '' },
  ]);
});

test.each([
  ['', {}],
  ['A plate', { caption: 'A plate' }],
  ['© N. Luthier', { credit: '© N. Luthier' }],
  ['A plate (Photo by N. Luthier)', { caption: 'A plate', credit: 'Photo by N. Luthier' }],
  ['Eine Decke. Foto: N. Luthier', { caption: 'Eine Decke.', credit: 'Foto: N. Luthier' }],
  ['The source of the sound', { caption: 'The source of the sound' }],
])('what a caption says of whose it is: %s', (caption, said) => expect(creditIn(caption)).toEqual(said));

test('an address alone on a line is asked whether it is a video, one among words is a link', () => {
  const film = 'https://films.example/watch/1';
  for (const text of [`See how:\n${film}\nIt takes an hour.`, `See how:\n\n<${film}>\n\nIt takes an hour.`])
    expect(partsOf(text)).toMatchObject([
      { type: 'paragraph', content: [{ text: 'See how:' }] },
      { type: 'video asked', address: film, words: [{ type: 'paragraph', content: [{ text: film }] }] },
      { type: 'paragraph', content: [{ text: 'It takes an hour.' }] },
    ]);
  expect(partsOf(`See ${film} for it.`)).toMatchObject([{ type: 'paragraph' }]);
  expect(laidOutPlain(`See how:\n${film}\nIt takes an hour.`).parts.map(({ type }) => type)).toEqual([
    'paragraph',
    'video asked',
    'paragraph',
  ]);
  expect(addressAlone('ftp://a.example/')).toBeNull();
  expect(addressAlone('https://a b')).toBeNull();
});

test('a quotation keeps who said it', () => {
  expect(partsOf('> Listen before you cut.\n>\n> — N. Luthier')).toMatchObject([
    { type: 'quote', content: [{ text: 'Listen before you cut.' }], credit: [{ text: 'N. Luthier' }] },
  ]);
  // As our own files write it.
  expect(
    partsOf('> Listen before you cut.\n>\n> _N. Luthier, in [a talk](https://luthier.example/talk)_'),
  ).toMatchObject([
    {
      type: 'quote',
      content: [{ text: 'Listen before you cut.' }],
      credit: [{ text: 'N. Luthier, in ' }, { text: 'a talk' }],
    },
  ]);
  expect(partsOf('> _Listen_ before you cut.\n>\n> Then _cut_.')).toMatchObject([{ type: 'quote' }]);
  expect(partsOf('> _Listen before you cut._')[0]).not.toHaveProperty('credit');
});
