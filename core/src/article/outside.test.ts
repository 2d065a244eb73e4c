import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Block } from './block.ts';
import { type OurPart, outsidePlaces, type ShownPart, settledBody } from './outside.ts';
import { blockText } from './text.ts';

const block = (id: string, text: string, evidence?: string): Block => ({
  type: 'paragraph',
  id,
  content: [{ text }],
  ...(evidence ? { evidence: [{ source: evidence, passage: 1 }] as never } : {}),
});
const ours = (blocks: readonly Block[]): OurPart[] =>
  blocks.map((one) => ({ text: blockText(one), block: one, of: one.id }));
const theirs = (...texts: string[]): ShownPart[] => texts.map((text, i) => ({ text, block: block(`t${i}`, text) }));
const BODY = [
  block('a', 'Comb it wet.', 's1'),
  block('b', 'Let it dry for a day.', 's2'),
  block('c', 'Then tighten it.'),
];
const texts = (body: readonly Block[]) => body.map(blockText);

describe('a text on a blog beside the one that was sent', () => {
  it('that is as it was has no changed place, however its blanks are', () => {
    expect(outsidePlaces(ours(BODY), theirs('Comb  it wet.', 'Let it dry for a day.\n', 'Then tighten it.'))).toEqual([
      { changed: false, blocks: ['a', 'b', 'c'] },
    ]);
  });

  it('shows what was changed word by word, put in and taken away, each as a place of its own', () => {
    const places = outsidePlaces(
      ours(BODY),
      theirs('Comb it dry.', 'Let it dry for a day.', 'Ask us.', 'Then tighten it.'),
    );
    expect(places.map(({ changed, blocks }) => [changed, blocks])).toEqual([
      [true, ['a']],
      [false, ['b']],
      [true, []],
      [false, ['c']],
    ]);
    expect(places[0]).toMatchObject({ words: expect.arrayContaining([{ stands: 'before', text: 'wet' }]) });
    expect(outsidePlaces(ours(BODY), theirs('Comb it wet.', 'Then tighten it.'))[1]).toMatchObject({
      blocks: ['b'],
      put: [],
    });
  });

  it('two paragraphs changed beside each other are two places', () => {
    expect(
      outsidePlaces(ours(BODY), theirs('One.', 'Two.', 'Then tighten it.')).filter(({ changed }) => changed),
    ).toHaveLength(2);
  });

  it('a block that is shown as several parts is one place when one of them was changed', () => {
    const list: Block = {
      type: 'list',
      id: 'l',
      ordered: false,
      items: [[{ text: 'wet' }], [{ text: 'dry' }]],
    } as never;
    const parts: OurPart[] = [
      { text: 'Points', block: null, of: 'l' },
      { text: 'wet dry', block: list, of: 'l' },
      ...ours([BODY[2]!]),
    ];
    const places = outsidePlaces(parts, [
      { text: 'Points', block: null },
      { text: 'wet only', block: list },
      ...theirs('Then tighten it.'),
    ]);
    expect(places.map(({ changed, blocks }) => [changed, blocks])).toEqual([
      [true, ['l']],
      [false, ['c']],
    ]);
    expect(places[0]).toMatchObject({ others: 1 });
  });
});

describe('what becomes of it', () => {
  const places = outsidePlaces(
    ours(BODY),
    theirs('Comb it dry.', 'Let it dry for a day.', 'Ask us.', 'Then tighten it.'),
  );
  it('theirs is taken with what it rested on, ours stays, both stand one after the other', () => {
    const taken = settledBody(BODY, places, ['theirs', 'theirs']);
    expect(texts(taken)).toEqual(['Comb it dry.', 'Let it dry for a day.', 'Ask us.', 'Then tighten it.']);
    expect(taken[0]).toMatchObject({ id: 'a', evidence: BODY[0]!.evidence });
    expect(taken[2]!.evidence).toBeUndefined();
    expect(texts(settledBody(BODY, places, ['ours', 'ours']))).toEqual(texts(BODY));
    expect(texts(settledBody(BODY, places, ['both', 'ours'])).slice(0, 2)).toEqual(['Comb it wet.', 'Comb it dry.']);
  });

  it('what readers never see stays where it is', () => {
    const unseen: Block = { type: 'placeholder', id: 'p', words: 'a picture of a bow' } as never;
    const body = [BODY[0]!, unseen, BODY[1]!, BODY[2]!];
    const all = outsidePlaces(ours(BODY), theirs('Comb it dry.', 'Let it dry for a day.', 'Then tighten it.'));
    expect(settledBody(body, all, ['theirs']).map(({ id }) => id)).toEqual(['a', 'p', 'b', 'c']);
  });

  it('taking all of theirs is their text, taking all of ours is ours, with single ids, whatever was done', () => {
    const word = fc.constantFrom('bow', 'hair', 'rosin', 'gut', 'steel');
    const lines = fc.array(
      fc.array(word, { minLength: 1, maxLength: 3 }).map((words) => words.join(' ')),
      { maxLength: 8 },
    );
    fc.assert(
      fc.property(lines, lines, (was, is) => {
        const body = was.map((text, i) => block(`b${i}`, text));
        const found = outsidePlaces(ours(body), theirs(...is));
        const n = found.filter(({ changed }) => changed).length;
        const all = settledBody(body, found, Array(n).fill('theirs'));
        expect(texts(all)).toEqual(is);
        expect(new Set(all.map(({ id }) => id)).size).toBe(all.length);
        expect(settledBody(body, found, Array(n).fill('ours'))).toEqual(body);
        const both = settledBody(body, found, Array(n).fill('both'));
        for (const text of [...was, ...is]) expect(texts(both)).toContain(text);
      }),
      { numRuns: 400 },
    );
  });
});
