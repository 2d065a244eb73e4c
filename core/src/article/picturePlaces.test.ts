import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import type { Block } from './block.ts';
import { placesAtHeadings, placesWhereTheyFit, withPictures } from './picturePlaces.ts';

const heading = (id: string, text = id): Block => ({ type: 'heading', id, level: 2, text });
const says = (id: string, words: number): Block => ({
  type: 'paragraph',
  id,
  content: [{ text: Array.from({ length: words }, (_, i) => `word${i}`).join(' ') }],
});
const figure = (id: string, lead = false): Block => ({
  type: 'figure',
  id,
  file: 'f'.repeat(64),
  width: 4,
  height: 3,
  alternative: 'A saddle on a rack',
  lead,
});
const video = (id: string): Block => ({ type: 'video', id, address: 'https://v.example/1', title: 'Saddles' }) as Block;
const kept = (id: string, wants: 'picture' | 'chart'): Block => ({
  type: 'placeholder',
  id,
  wants,
  says: 'A buckle from above',
});

/** An article on saddlebags: an opening, a short section, a long one, one with a video. */
const body: Block[] = [
  figure('lead', true),
  says('open', 60),
  heading('Hide'),
  says('hide', 30),
  heading('Thread'),
  says('thread', 80),
  says('more', 40),
  heading('Buckles'),
  video('v1'),
  says('buckles', 90),
  heading('Wax'),
  says('wax', 5),
];
const blocks = (places: readonly { block: string }[]) => places.map(({ block }) => block);

describe('at headings', () => {
  test('behind the first paragraph below each that is named, the last by its name', () => {
    const places = placesAtHeadings(body, '2, last');
    expect(blocks(places)).toEqual(['thread', 'wax']);
    expect(places.map(({ heading }) => heading)).toEqual(['Thread', 'Wax']);
    expect(places[0]!.about).toContain('word79');
  });

  test('where a video or a picture stands it stays, and one that is not there is passed over', () => {
    expect(placesAtHeadings(body, '3')).toEqual([]);
    expect(placesAtHeadings(body, '9, 1')).toMatchObject([{ block: 'hide' }]);
    expect(placesAtHeadings([heading('a'), figure('x'), says('p', 9)], '1')).toEqual([]);
  });

  test('right below a heading that no paragraph follows, and once where one is named twice', () => {
    const list: Block = { type: 'list', id: 'l', ordered: false, items: [[{ text: 'one' }]] } as unknown as Block;
    expect(blocks(placesAtHeadings([heading('a'), list], '1, last'))).toEqual(['a']);
  });
});

describe('where they fit', () => {
  test('the longest sections that show nothing yet, in the order of the article', () => {
    expect(blocks(placesWhereTheyFit(body, 1))).toEqual(['thread']);
    expect(blocks(placesWhereTheyFit(body, 5))).toEqual(['hide', 'thread']);
  });

  test('places kept for a picture come first, and what is shown is what they say', () => {
    const places = placesWhereTheyFit([...body, kept('k', 'picture'), kept('c', 'chart')], 1);
    expect(places).toEqual([{ block: 'k', instead: true, heading: 'A buckle from above', about: '' }]);
  });

  test('an article without headings has none', () => {
    expect(placesWhereTheyFit([says('a', 200)], 3)).toEqual([]);
  });
});

test('whatever the article, each picture stands once, everything else stays in its order, and a kept place goes', () => {
  const block = fc.oneof(
    fc.nat(60).map((words) => says('', words)),
    fc.constant(heading('', 'A part')),
    fc.constant(video('')),
    fc.constant(figure('')),
    fc.constant(kept('', 'picture')),
  );
  fc.assert(
    fc.property(fc.array(block, { maxLength: 25 }), fc.integer({ min: 1, max: 5 }), fc.boolean(), (some, most, fit) => {
      const article = some.map((one, i) => ({ ...one, id: `b${i}` }) as Block);
      const places = fit ? placesWhereTheyFit(article, most) : placesAtHeadings(article, '1, 2, 3, last');
      if (fit) expect(places.length).toBeLessThanOrEqual(most);
      const put = places.map((place, n) => ({ place, figure: figure(`new${n}`) }));
      const after = withPictures(article, put);
      const gone = new Set(places.filter(({ instead }) => instead).map(({ block: id }) => id));
      expect(after.filter(({ id }) => !id.startsWith('new'))).toEqual(article.filter(({ id }) => !gone.has(id)));
      expect(
        after
          .filter(({ id }) => id.startsWith('new'))
          .map(({ id }) => id)
          .sort(),
      ).toEqual(put.map(({ figure: { id } }) => id).sort());
      expect(after[0]?.id.startsWith('new') ?? false).toBe(article[0] !== undefined && gone.has('b0'));
    }),
  );
});
