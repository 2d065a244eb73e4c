import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { blocksFromMarkdown, blocksFromPlain } from './fromText.ts';

describe('a finished text in Markdown', () => {
  test('keeps headings from the second level down, emphasis, code and links to the web alone', () => {
    expect(
      blocksFromMarkdown(
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

  test('keeps lists, quotes and tables; pictures are named, rules fall away, HTML is shown as the text it is', () => {
    expect(
      blocksFromMarkdown(
        '1. wash\n2. salt\n\n   and wait\n\n> Twenty\n> grams\n\n| Salt | g |\n|---|---|\n| sea | 20 |\n\n---\n\n![A crock](x.png)\n\n<script>alert(1)</script>\n\n<div>Weigh <b>20 g</b> &amp; wait</div>',
      ),
    ).toEqual([
      {
        type: 'list',
        id: 'b1',
        ordered: true,
        items: [[{ text: 'wash' }], [{ text: 'salt' }, { text: ' ' }, { text: 'and wait' }]],
      },
      { type: 'quote', id: 'b2', text: expect.stringMatching(/^Twenty\s+grams$/) },
      { type: 'table', id: 'b3', head: ['Salt', 'g'], rows: [['sea', '20']] },
      { type: 'paragraph', id: 'b4', content: [{ text: 'A crock' }] },
      { type: 'paragraph', id: 'b5', content: [{ text: 'Weigh 20 g & wait' }] },
    ]);
  });

  test('whatever is typed becomes blocks with ids of their own, and nothing throws', () => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom('# ', '- ', '> ', '|', '\n', '\n\n', '**', '[a](', ')', '`', 'salt ', '<b>', '1. ')),
        (parts) => {
          const ids = blocksFromMarkdown(parts.join('')).map(({ id }) => id);
          expect(new Set(ids).size).toBe(ids.length);
        },
      ),
      { numRuns: 300 },
    );
  });
});

test('a plain text is parted at empty lines alone', () => {
  expect(
    blocksFromPlain('One\r\nline.\r\n\r\n  \n# no heading\n\n\n').map(
      (block) => block.type === 'paragraph' && block.content,
    ),
  ).toEqual([[{ text: 'One line.' }], [{ text: '# no heading' }]]);
});
