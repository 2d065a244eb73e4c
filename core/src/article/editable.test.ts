import * as fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import type { Block, Inline } from './block.ts';
import { editableText, readEditable } from './editable.ts';
import { blockText } from './text.ts';

const evidence = (passage: string) => [{ passage, digest: `d-${passage}` }];
const p = (id: string, text: string, rests: string | null = null): Block => ({
  type: 'paragraph',
  id,
  content: [{ text }],
  ...(rests ? { evidence: evidence(rests) } : {}),
});
const SALT = 'Weigh the salt, two grams to every hundred grams of cabbage.';
const JAR = 'Press the cabbage under its brine until no leaf shows above it.';
const WAIT = 'Leave the jar in a cool room and taste it after ten days.';
const BODY: Block[] = [
  { type: 'contents', id: 'b1' },
  { type: 'heading', id: 'b2', level: 2, text: 'Salt' },
  p('b3', SALT, 'p1'),
  p('b4', JAR, 'p2'),
  { type: 'heading', id: 'b5', level: 2, text: 'Time' },
  p('b6', WAIT, 'p3'),
  { type: 'figure', id: 'b7', file: 'f'.repeat(64), width: 8, height: 6, alternative: 'A jar', lead: true },
  { type: 'key points', id: 'b8', items: [[{ text: 'Weigh it' }], [{ text: 'Press it' }]] },
  {
    type: 'call to action',
    id: 'b9',
    content: [{ text: 'Crocks of all sizes' }],
    button: 'See them',
    link: { to: 'address', address: 'https://shop.example/' },
  },
  { type: 'question and answer', id: 'b10', question: 'How long?', answer: [{ text: 'Ten days.' }] },
];

function read(text: string, former: readonly Block[] = BODY): Block[] {
  const found = readEditable(text, former);
  if (!found.ok) throw new Error(JSON.stringify(found.problems));
  return found.body;
}

describe('a text edited as Markdown', () => {
  test('unchanged it is what it was', () => {
    expect(read(editableText(BODY))).toEqual(BODY);
  });

  test('a reworded paragraph keeps its id and what it rests on', () => {
    const [, , changed] = read(editableText(BODY).replace('two grams', 'two and a half grams'));
    expect(changed).toMatchObject({ id: 'b3', evidence: evidence('p1') });
    expect(changed).toMatchObject({ content: [{ text: SALT.replace('two grams', 'two and a half grams') }] });
  });

  test('both halves of a split paragraph rest on what the whole did', () => {
    const body = read(editableText(BODY).replace(', two grams', '.\n\nTake two grams'));
    const halves = body.slice(2, 4);
    expect(halves.map((block) => block.evidence)).toEqual([evidence('p1'), evidence('p1')]);
    expect(halves.map((block) => block.id).sort()).toEqual(['b11', 'b3']);
    expect(body.slice(4)).toEqual(BODY.slice(3));
  });

  test('joined paragraphs rest on all they came from', () => {
    const body = read(editableText(BODY).replace(`${SALT}\n\n${JAR}`, `${SALT} ${JAR}`));
    expect(body[2]!.evidence).toEqual([...evidence('p1'), ...evidence('p2')]);
    expect(body).toHaveLength(BODY.length - 1);
  });

  test('a paragraph moved elsewhere is still itself; a new one rests on nothing and has an id of its own', () => {
    const body = read(`${editableText(BODY).replace(`${SALT}\n\n`, '')}\n\n${SALT}\n\nSomething else altogether.`);
    expect(body.at(-2)).toEqual(BODY[2]);
    expect(body.at(-1)).toEqual(p('b11', 'Something else altogether.'));
  });

  test('a heading with other words is the same heading', () => {
    expect(read(editableText(BODY).replace('## Time', '## How long it takes'))[4]).toEqual({
      type: 'heading',
      id: 'b5',
      level: 2,
      text: 'How long it takes',
    });
  });

  test('pictures are named by a line, and their alternative text can be changed there', () => {
    const line = '::picture[A jar]{#b7}';
    expect(editableText(BODY)).toContain(line);
    expect(read(editableText(BODY).replace(line, '::picture[A jar on a shelf]{#b7}'))[6]).toEqual({
      ...BODY[6],
      alternative: 'A jar on a shelf',
    });
    const captioned = read(editableText(BODY).replace(line, ':::picture[A jar]{#b7}\nIn **autumn**\n:::'));
    expect(captioned[6]).toEqual({ ...BODY[6], caption: [{ text: 'In ' }, { text: 'autumn', marks: ['strong'] }] });
    expect(read(editableText(captioned), captioned)).toEqual(captioned);
  });

  test('a picture that is not there, an unknown part and a button without an address are said with their line', () => {
    const found = readEditable(
      'One line.\n\n::picture[A crock]{#b99}\n\n:::banner\nx\n:::\n\n:::call-to-action[Buy]\nNow\n:::',
      BODY,
    );
    expect(found).toEqual({
      ok: false,
      problems: [
        { line: 3, sentence: 'The article has no picture ‘b99’.', mend: 'It has #b7.' },
        { line: 5, sentence: '‘banner’ is not part of an article.', mend: expect.stringContaining('key-points') },
        { line: 9, sentence: expect.stringContaining('an address'), mend: 'Fill it, or take it out.' },
      ],
    });
  });

  test('what the text cannot say stays: credit, sponsored links, who is quoted, what a table shows', () => {
    const body: Block[] = [
      {
        type: 'paragraph',
        id: 'a',
        content: [
          { text: 'Look ' },
          { text: 'here', link: { to: 'address', address: 'https://x.example/', sponsored: true } },
        ],
      },
      { type: 'quote', id: 'b', content: [{ text: 'Salt is patience made solid.' }], credit: [{ text: 'A cook' }] },
      {
        type: 'table',
        id: 'c',
        caption: [{ text: 'Grams' }],
        head: [[{ text: 'Jar' }], [{ text: 'Salt' }]],
        rows: [[[{ text: 'one' }], [{ text: '20' }]]],
      },
      { type: 'paragraph', id: 'd', content: [{ text: 'ours', link: { to: 'article', article: 'x1' } }] },
    ];
    const text = editableText(body);
    const next = read(
      text
        .replace('Look ', 'Look at it ')
        .replace('patience', 'slow patience')
        .replace('20', '25')
        .replace('ours', 'one of ours'),
      body,
    );
    expect(next[0]).toMatchObject({ content: [{ text: 'Look at it ' }, { link: { sponsored: true } }] });
    expect(next[1]).toMatchObject({
      id: 'b',
      credit: [{ text: 'A cook' }],
      content: [{ text: 'Salt is slow patience made solid.' }],
    });
    expect(next[2]).toMatchObject({
      id: 'c',
      caption: [{ text: 'Grams' }],
      rows: [[[{ text: 'one' }], [{ text: '25' }]]],
    });
    expect(next[3]).toMatchObject({
      id: 'd',
      content: [{ text: 'one of ours', link: { to: 'article', article: 'x1' } }],
    });
  });

  test('whatever a body says, writing it out and reading it in changes nothing', () => {
    const words = fc.string({ minLength: 1, maxLength: 40, unit: 'grapheme' });
    const marks = fc.subarray(['strong', 'emphasis', 'code'] as const);
    const inline: fc.Arbitrary<Inline> = fc.record({ text: words, marks: marks.map((some) => [...some]) });
    const content = fc.array(inline, { minLength: 1, maxLength: 4 });
    // In a label a bracket as code is written as a plain one.
    const label = content.map((all) =>
      all.map((one) => ({ ...one, marks: one.marks!.filter((mark) => mark !== 'code' || !/[[\]]/.test(one.text)) })),
    );
    const block = fc.oneof(
      content.map((content) => ({ type: 'paragraph' as const, content })),
      fc.record({ type: fc.constant('heading' as const), level: fc.constantFrom(2, 3, 4), text: words }),
      fc.record({
        type: fc.constant('list' as const),
        ordered: fc.boolean(),
        items: fc.array(content, { minLength: 1, maxLength: 3 }),
      }),
      fc.record({ type: fc.constant('quote' as const), content }, { requiredKeys: ['type', 'content'] }),
      fc.record({ type: fc.constant('quote' as const), content, credit: label }),
      fc.record({ type: fc.constant('key points' as const), items: fc.array(content, { minLength: 1, maxLength: 3 }) }),
      fc.record({ type: fc.constant('closing' as const), content }),
      fc.record({
        type: fc.constant('table' as const),
        head: fc.array(content, { minLength: 1, maxLength: 3 }),
        caption: label,
        rows: fc.constant([]),
      }),
    );
    fc.assert(
      fc.property(fc.array(block, { maxLength: 8 }), (blocks) => {
        const body = blocks.map((one, i) => ({ ...one, id: `b${i + 1}`, evidence: evidence(`p${i}`) })) as Block[];
        const found = readEditable(editableText(body), body);
        expect(found.ok).toBe(true);
        // What has no words at all may vanish; nothing else may.
        const kept = body.filter((one) => /[\p{L}\p{N}]/u.test(blockText(one)));
        if (found.ok) for (const one of kept) expect(found.body).toContainEqual(one);
      }),
      { numRuns: 300 },
    );
  });
});
