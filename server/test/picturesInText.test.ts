import type { ArticleWhole } from '@grivo/contract';
import type { Block } from '@grivo/core';
import { expect, test } from 'vitest';
import { atTheDesk, type Desk } from './ground/desk.ts';
import { illustrating } from './ground/illustrating.ts';

let desk: Desk;
atTheDesk(
  (open) => {
    desk = open;
  },
  { upkeep: [] },
);
const illustrated = illustrating(() => desk);

const long = (about: string) =>
  `${about} is what a saddler looks at first, for it wears sooner than the rest and is mended last of all, on a bench, by daylight.`;
const BAG = [
  'A saddlebag hangs by two straps.',
  '## Hide',
  long('The hide'),
  '## Thread',
  long('The thread'),
  `${long('The needle')} ${long('The awl')}`,
  '## Wax',
  'Warm it.',
].join('\n\n');
const LAID_OUT = { body: BAG, reads: 'Markdown' };

const pictures = ({ document }: ArticleWhole) =>
  document.body.flatMap((block, at) =>
    block.type === 'figure' && !block.lead
      ? [
          {
            ...block,
            under: document.body.slice(0, at).findLast(({ type }) => type === 'heading') as Block & { text: string },
          },
        ]
      : [],
  );

test('drawn pictures stand at the headings that were named, of the size that was chosen, each with words of its own', async () => {
  const { article } = await illustrated(
    'a saddlebag',
    { place: 'at headings', headings: '1, last', size: 'small' },
    [],
    {},
    LAID_OUT,
  );
  const put = pictures(article);
  expect(put.map(({ under }) => under.text)).toEqual(['Hide', 'Wax']);
  expect(put.every(({ size }) => size === 'small')).toBe(true);
  expect(new Set(put.map(({ file }) => file)).size).toBe(2);
  expect(new Set(put.map(({ alternative }) => alternative)).size).toBe(2);
  expect(article.html).toContain('max-width:35%');
  const { micros } = (await desk.ask<{ micros: number }>('GET', `/articles/${article.id}`)).body;
  const price = desk.w.product.tools.services.standard('illustrator')!.price.microsPerPicture;
  expect(micros).toBe(2 * price);
});

test('where they fit they stand in the longest sections that show nothing, no more than were asked for', async () => {
  const { article } = await illustrated('a pannier', { place: 'where they fit', most: 1 }, [], {}, LAID_OUT);
  expect(pictures(article).map(({ under }) => under.text)).toEqual(['Thread']);
  const { article: more } = await illustrated('a holdall', { place: 'where they fit', most: 9 }, [], {}, LAID_OUT);
  expect(pictures(more).map(({ under }) => under.text)).toEqual(['Hide', 'Thread']);
});

test('a lead and pictures in the text are two steps, and neither takes the other away', async () => {
  const lead = { kind: 'illustrate', id: 's9', off: false, lead: 'drawn', manner: 'ink', instruction: '' };
  const { article, lead: head } = await illustrated(
    'a satchel',
    { place: 'at headings', headings: '2' },
    [],
    {},
    LAID_OUT,
    [lead as never],
  );
  expect(head).not.toBeNull();
  expect(pictures(article).map(({ under }) => under.text)).toEqual(['Thread']);
});

test('one of ours stands once in an article; a place for which there is none stays empty', async () => {
  const { article } = await illustrated(
    'a haversack',
    { lead: 'own', otherwise: 'none', place: 'at headings', headings: '1, 2, 3' },
    [],
    {},
    LAID_OUT,
  );
  const files = pictures(article).map(({ file }) => file);
  expect(new Set(files).size).toBe(files.length);
});
