import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { textDigest } from '../chance/chance.ts';
import { figuresOf } from '../passage/figures.ts';
import type { Block } from './block.ts';
import { alikeBlocks, putProblem, puttingOf } from './putting.ts';
import { blockText, linksOf } from './text.ts';

const paragraph = (id: string, text: string): Block => ({
  type: 'paragraph',
  id,
  content: [{ text }],
  evidence: [{ passage: 'p:1', digest: textDigest(text) }],
});

describe('what is put in other words', () => {
  const body: Block[] = [
    { type: 'heading', id: 'h', level: 2, text: 'Bees in March' },
    paragraph('a', 'A hive of 18 kilos is enough.'),
    {
      type: 'paragraph',
      id: 'b',
      content: [
        { text: 'See ' },
        { text: 'the scale', link: { to: 'address', address: 'https://scale.example' } },
        { text: '.' },
      ],
    },
    { type: 'quote', id: 'q', content: [{ text: 'They hum.' }] },
    { type: 'standing text', id: 'house1x1', content: [{ text: 'Ours.' }] },
  ];

  it('is prose alone; headings, quotations and what the house says stay', () => {
    const { units, put } = puttingOf({ body, language: 'en' });
    expect(units.map(({ text }) => text)).toEqual(['A hive of 18 kilos is enough.', 'See <1>the scale</1>.']);
    const out = put(new Map(units.map(({ n, text }) => [n, text.replace('A hive of', 'Any hive with')])));
    expect(out.map(blockText)).toEqual([
      'Bees in March',
      'Any hive with 18 kilos is enough.',
      'See the scale.',
      'They hum.',
      'Ours.',
    ]);
    expect(out[1]!.evidence).toEqual([{ passage: 'p:1', digest: textDigest('Any hive with 18 kilos is enough.') }]);
    expect(out.flatMap(linksOf)).toEqual(body.flatMap(linksOf));
    expect(puttingOf({ body, language: 'en' }, new Set(['b'])).units).toHaveLength(1);
  });

  it.each([
    ['a figure lost', 'It weighs 18 kilos.', 'It is heavy.', /18/],
    ['a figure changed', 'It weighs 18 kilos.', 'It weighs 81 kilos.', /18/],
    ['a figure put in', 'It is heavy.', 'It weighs 18 kilos.', /the figure 18 was not in/],
    ['a link lost', 'See <1>it</1>.', 'Look at it.', /link/],
    ['a word that stays lost', 'The hive hums.', 'The box hums.', /‘hive’ must stay/],
    ['nothing', 'The hive hums.', ' ', /nothing was given/],
  ])('%s is told', (_, before, after, problem) => {
    expect(putProblem(before, after, ['hive'])).toMatch(problem);
  });

  it('is well where it says the same', () => {
    expect(putProblem('The hive weighs 18 kilos.', 'At 18 kilos stands the Hive.', ['hive'])).toBeNull();
    expect(putProblem('It hums.', 'It sings.', ['hive', ' '])).toBeNull();
  });

  it('whatever a writer gives: only what keeps words, figures and links is taken (300 drawn)', () => {
    const WORDS = ['hive', 'bees', '18', '2.5', 'frost', 'sugar', 'smoke', 'honey', 'wax'];
    const text = fc
      .array(fc.constantFrom(...WORDS), { minLength: 3, maxLength: 12 })
      .map((words) => `${words.join(' ')}.`);
    fc.assert(
      fc.property(
        fc.array(text, { minLength: 1, maxLength: 6 }),
        fc.array(text, { minLength: 6, maxLength: 6 }),
        (texts, replies) => {
          const body = texts.map((one, i) => paragraph(`p${i}`, one));
          const { units, put } = puttingOf({ body, language: 'en' });
          const taken = new Map(
            units.flatMap(({ n, text: was }, i) =>
              putProblem(was, replies[i]!, ['hive']) === null ? [[n, replies[i]!] as const] : [],
            ),
          );
          const out = put(taken);
          expect(out.map(({ id }) => id)).toEqual(body.map(({ id }) => id));
          for (const [i, block] of out.entries()) {
            const [was, is] = [blockText(body[i]!), blockText(block)];
            expect(new Set(figuresOf(is))).toEqual(new Set(figuresOf(was)));
            expect(is.split('hive').length).toBeGreaterThanOrEqual(was.split('hive').length);
            expect(block.evidence?.[0]?.digest).toBe(textDigest(is));
          }
        },
      ),
      { numRuns: 300 },
    );
  });

  it('how alike it still is, is told by block', () => {
    const before = 'Weigh the hive in October and feed it until the first frost comes.';
    const body = [
      paragraph('a', before),
      paragraph('b', 'Once the leaves fall, put sugar out for as long as nights stay mild.'),
    ];
    const { likeness, blocks } = alikeBlocks({ body, language: 'en' }, [before], 20);
    expect([...blocks]).toEqual(['a']);
    expect(likeness).toBeGreaterThan(40);
    expect(likeness).toBeLessThan(60);
    expect(alikeBlocks({ body, language: 'en' }, [], 20)).toEqual({ likeness: 0, blocks: new Set() });
  });
});
