import type { Block, Evidence } from '@grivo/core';
import fc from 'fast-check';
import { joinBackward } from 'prosemirror-commands';
import { redo, undo } from 'prosemirror-history';
import { type Command, type EditorState, NodeSelection, TextSelection } from 'prosemirror-state';
import { describe, expect, it } from 'vitest';
import {
  enter,
  idsAt,
  insertBlock,
  leadOn,
  lettersAt,
  moveBlock,
  newTable,
  outOfList,
  putLink,
  removeBlock,
  replaceBlocks,
  setAttribute,
  strong,
} from './commands.ts';
import { bodyOf, documentOf } from './document.ts';
import { editorState } from './editor.ts';
import { TURNS, turnInto } from './turns.ts';

const HANDS = { link: () => undefined, find: () => undefined, anew: () => undefined, leave: () => undefined };

const on = (...passages: string[]): Evidence[] => passages.map((passage) => ({ passage, digest: 'd' }));
const paragraph = (id: string, text: string, ...passages: string[]): Block => ({
  type: 'paragraph',
  id,
  content: text === '' ? [] : [{ text }],
  ...(passages.length > 0 ? { evidence: on(...passages) } : {}),
});

/** One of every kind of block, with marks, links and parts. */
const EVERY: Block[] = [
  { type: 'heading', id: 'h1', level: 2, text: 'Strings of gut' },
  {
    type: 'paragraph',
    id: 'p1',
    content: [
      { text: 'Gut answers ' },
      { text: 'sooner', marks: ['strong', 'emphasis'] },
      { text: ' than ', marks: ['code'] },
      { text: 'steel', link: { to: 'address', address: 'https://strings.example/steel' } },
      { text: '.' },
    ],
    evidence: on('m1'),
  },
  { type: 'list', id: 'l1', ordered: true, items: [[{ text: 'One' }], [{ text: 'Two', marks: ['strong'] }]] },
  { type: 'key points', id: 'k1', items: [[{ text: 'Tune it' }]], evidence: on('m2') },
  { type: 'quote', id: 'q1', content: [{ text: 'Play slowly' }], credit: [{ text: 'A teacher' }] },
  { type: 'question and answer', id: 'qa', question: 'Which one?', answer: [{ text: 'Gut.' }] },
  {
    type: 'table',
    id: 't1',
    caption: [{ text: 'Tension' }],
    head: [[{ text: 'String' }], [{ text: 'kg' }]],
    rows: [[[{ text: 'G' }], [{ text: '4.1' }]]],
  },
  { type: 'figure', id: 'f1', file: 'a'.repeat(64), width: 10, height: 10, alternative: 'A bow.', lead: false },
  { type: 'video', id: 'v1', address: 'https://films.example/1', title: 'Bowing' },
  {
    type: 'chart',
    id: 'c1',
    form: 'bar',
    labels: ['G'],
    series: [{ name: 'kg', values: [4.1] }],
    alternative: 'One bar.',
  },
  {
    type: 'call to action',
    id: 'a1',
    content: [{ text: 'Come in.' }],
    button: 'Visit',
    link: { to: 'address', address: 'https://shop.example' },
  },
  { type: 'closing', id: 'z1', content: [{ text: 'That is all.' }] },
  { type: 'standing text', id: 's1', content: [{ text: 'From our workshop.' }] },
  { type: 'disclosure', id: 'd1', content: [{ text: 'We sell strings.' }] },
  { type: 'fold', id: 'o1', words: 'Read on' },
  {
    type: 'related articles',
    id: 'r1',
    heading: 'Read next',
    items: [[{ text: 'Bows', link: { to: 'article', article: 'x' } }]],
  },
  { type: "owner's markup", id: 'm1', markup: '<b>ours</b>' },
  { type: 'contents', id: 'n1' },
  { type: 'placeholder', id: 'w1', wants: 'picture', says: 'A fiddle' },
];

/** An editor without a screen. */
class Desk {
  state: EditorState;
  constructor(body: readonly Block[]) {
    let n = 0;
    this.state = editorState({ body: [...body] }, HANDS, () => `new${++n}`);
  }
  get body(): Block[] {
    return bodyOf(this.state.doc);
  }
  does(command: Command): boolean {
    return command(this.state, (tr) => {
      this.state = this.state.apply(tr);
    });
  }
  /** Puts the place to type before a text, or so many letters into it. */
  at(text: string, into = 0): this {
    let place = -1;
    this.state.doc.descendants((node, pos) => {
      if (node.isText && node.text?.includes(text) && place < 0) place = pos + node.text.indexOf(text) + into;
    });
    return this.put(place);
  }
  put(from: number, to = from): this {
    this.state = this.state.apply(this.state.tr.setSelection(TextSelection.create(this.state.doc, from, to)));
    return this;
  }
  type(text: string): this {
    this.state = this.state.apply(this.state.tr.insertText(text));
    return this;
  }
}

const textOf = (body: readonly Block[]) => documentOf(body).textBetween(0, documentOf(body).content.size, '\n', '');

describe('an article in the editor', () => {
  it('comes back as it was, whatever kinds of block it has', () => {
    expect(bodyOf(documentOf(EVERY))).toEqual(EVERY);
  });

  it('an empty one has a paragraph to type in', () => {
    const desk = new Desk([]);
    desk.put(1).type('First words');
    expect(desk.body).toEqual([{ type: 'paragraph', id: 'new1', content: [{ text: 'First words' }] }]);
  });

  it('a paragraph that is split rests on the same in both parts, and the longer one stays itself', () => {
    const desk = new Desk([paragraph('p', 'Gut answers sooner. Steel lasts.', 'm1')]);
    desk.at('Steel').does(enter);
    expect(desk.body).toEqual([paragraph('p', 'Gut answers sooner. ', 'm1'), paragraph('new1', 'Steel lasts.', 'm1')]);
    desk.does(undo);
    expect(desk.body).toEqual([paragraph('p', 'Gut answers sooner. Steel lasts.', 'm1')]);
  });

  it('Enter before the first word leaves the paragraph its id', () => {
    const desk = new Desk([paragraph('p', 'Gut answers.', 'm1')]);
    desk.at('Gut').does(enter);
    expect(desk.body.map(({ id }) => id)).toEqual(['new1', 'p']);
  });

  it('paragraphs that are joined rest on all they rested on, and apart again on their own', () => {
    const before = [paragraph('a', 'Gut.', 'm1'), paragraph('b', 'Steel.', 'm2', 'm1')];
    const desk = new Desk(before);
    desk.at('Steel').does(joinBackward);
    expect(desk.body).toEqual([paragraph('a', 'Gut.Steel.', 'm1', 'm2')]);
    desk.does(undo);
    expect(desk.body).toEqual(before);
    desk.does(redo);
    expect(desk.body).toEqual([paragraph('a', 'Gut.Steel.', 'm1', 'm2')]);
  });

  it('a paragraph whose words are removed takes what it rests on with it', () => {
    const desk = new Desk([paragraph('a', 'Gut.', 'm1'), paragraph('b', 'Steel.', 'm2')]);
    desk.at('Steel').does(removeBlock);
    expect(desk.body).toEqual([paragraph('a', 'Gut.', 'm1')]);
    desk.does(removeBlock);
    expect(textOf(desk.body)).toBe('');
  });

  it.each(TURNS)('a paragraph becomes a %s and a paragraph again, with its id and what it rests on', (turn) => {
    const desk = new Desk([paragraph('p', 'Which string?', 'm1')]);
    expect(desk.at('string').does(turnInto(turn))).toBe(true);
    const [made] = desk.body;
    expect(made).toMatchObject({ id: 'p', evidence: on('m1') });
    expect(textOf([made!])).toContain('Which string?');
    desk.does(turnInto('paragraph'));
    expect(desk.body[0]).toEqual(paragraph('p', 'Which string?', 'm1'));
  });

  it('paragraphs picked together become one list that rests on all of them', () => {
    const desk = new Desk([paragraph('a', 'Gut.', 'm1'), paragraph('b', 'Steel.', 'm2')]);
    desk.put(1, desk.state.doc.content.size - 1).does(turnInto('list'));
    expect(desk.body).toEqual([
      {
        type: 'list',
        id: 'a',
        ordered: false,
        items: [[{ text: 'Gut.' }], [{ text: 'Steel.' }]],
        evidence: on('m1', 'm2'),
      },
    ]);
  });

  it('a list goes on with Enter, ends with an empty item, and parts where an item is taken out', () => {
    const desk = new Desk([
      { type: 'list', id: 'l', ordered: false, items: [[{ text: 'One' }], [{ text: 'Two' }]], evidence: on('m1') },
    ]);
    desk.at('Two', 3).does(enter);
    desk.type('Three').does(enter);
    desk.does(enter);
    expect(desk.body.map(({ type }) => type)).toEqual(['list', 'paragraph']);
    expect(desk.body[0]).toMatchObject({ id: 'l', items: [[{ text: 'One' }], [{ text: 'Two' }], [{ text: 'Three' }]] });
    desk.at('Two').does(outOfList);
    expect(desk.body.map((block) => [block.type, block.evidence?.length ?? 0])).toEqual([
      ['list', 1],
      ['paragraph', 1],
      ['list', 1],
      ['paragraph', 1],
    ]);
    expect(new Set(desk.body.map(({ id }) => id)).size).toBe(4);
  });

  it('Enter leads from the words of a quotation to its credit and out of it; from a question to its answer', () => {
    const desk = new Desk(EVERY.filter(({ type }) => type === 'quote' || type === 'question and answer'));
    desk.at('Play slowly', 11).does(enter);
    desk.type('Old: ').does(enter);
    desk.type('After it');
    desk.at('Which one?', 3).does(enter);
    desk.type('Well: ');
    expect(desk.body).toMatchObject([
      { type: 'quote', credit: [{ text: 'Old: A teacher' }] },
      { type: 'paragraph', content: [{ text: 'After it' }] },
      { question: 'Which one?', answer: [{ text: 'Well: Gut.' }] },
    ]);
  });

  it('Enter in a table goes down, and makes a row below the last', () => {
    const desk = new Desk(EVERY.filter(({ type }) => type === 'table'));
    desk.at('kg').does(enter);
    desk.does(enter);
    desk.type('5.0');
    expect(desk.body[0]).toMatchObject({
      rows: [
        [[{ text: 'G' }], [{ text: '4.1' }]],
        [[], [{ text: '5.0' }]],
      ],
    });
  });

  it('a block is put behind the one at hand, or in place of an empty paragraph', () => {
    const desk = new Desk([paragraph('a', 'Gut.'), paragraph('b', '')]);
    desk.at('Gut').does(insertBlock(newTable()));
    desk.put(desk.state.doc.content.size - 1).does(insertBlock(newTable()));
    expect(desk.body.map(({ type }) => type)).toEqual(['paragraph', 'table', 'table']);
    expect(new Set(desk.body.map(({ id }) => id)).size).toBe(3);
  });

  it('blocks change places, those that are no text too', () => {
    const desk = new Desk(EVERY.slice(6, 9));
    desk.state = desk.state.apply(
      desk.state.tr.setSelection(NodeSelection.create(desk.state.doc, desk.state.doc.firstChild!.nodeSize)),
    );
    expect(desk.does(moveBlock(-1))).toBe(true);
    expect(desk.body.map(({ id }) => id)).toEqual(['f1', 't1', 'v1']);
    expect(desk.does(moveBlock(-1))).toBe(false);
    desk.does(undo);
    expect(desk.body).toEqual(EVERY.slice(6, 9));
  });

  it('words are linked, the link changed as a whole and taken away', () => {
    const desk = new Desk([paragraph('a', 'Gut or steel.')]);
    const at = (address: string) => ({ to: 'address' as const, address });
    desk.put(8, 13).does(putLink(at('https://a.example')));
    desk.put(10).does(putLink(at('https://b.example')));
    expect(desk.body[0]).toMatchObject({
      content: [{ text: 'Gut or ' }, { text: 'steel', link: at('https://b.example') }, { text: '.' }],
    });
    desk.does(putLink(null));
    expect(desk.body).toEqual([paragraph('a', 'Gut or steel.')]);
    expect(desk.put(1).does(putLink(at('https://c.example')))).toBe(false);
    desk.put(1, 4).does(strong);
    expect(desk.body[0]).toMatchObject({ content: [{ text: 'Gut', marks: ['strong'] }, { text: ' or steel.' }] });
  });

  it('a sentence leads on from the end of the paragraph at hand, and from nowhere else', () => {
    const desk = new Desk([
      paragraph('a', 'Gut or steel.', 'm1'),
      { type: 'heading', id: 'h', level: 2, text: 'Bows' },
    ]);
    const to = { to: 'article' as const, article: 'x'.repeat(20) };
    desk.put(3).does(leadOn('Read next', 'Strings of silk', to));
    expect(desk.body[0]).toEqual({
      ...paragraph('a', '', 'm1'),
      content: [{ text: 'Gut or steel. Read next: ' }, { text: 'Strings of silk', link: to }, { text: '.' }],
    });
    expect(desk.put(desk.state.doc.content.size - 2).does(leadOn('Read next', 'Strings of silk', to))).toBe(false);
  });
});

describe('what somebody answers for', () => {
  const answered = (id: string, text: string, words: string): Block => ({
    ...paragraph(id, text, 'm1'),
    vouched: [{ words, reason: 'I weighed it', by: 'Ada' }],
  });
  it('comes back as it was, goes with its words, and is united where blocks are joined', () => {
    const body = [answered('a', 'It weighs 3 kg.', '3 kg'), answered('b', 'It lasts 9 years.', '9 years')];
    expect(bodyOf(documentOf(body))).toEqual(body);
    const desk = new Desk(body);
    desk.at('It lasts').does(joinBackward);
    expect(desk.body[0]!.vouched!.map(({ words }) => words)).toEqual(['3 kg', '9 years']);
    desk.does(undo);
    expect(desk.body).toEqual(body);
    desk.at('It weighs').does(turnInto('list'));
    expect(desk.body[0]).toMatchObject({ type: 'list', vouched: [{ words: '3 kg' }] });
  });

  it('is said and taken back, each in one change', () => {
    const desk = new Desk([paragraph('a', 'It weighs 3 kg.', 'm1')]);
    desk.does(setAttribute('a', 'vouched', [{ words: '3 kg', reason: 'I weighed it', by: 'Ada' }]));
    expect(desk.body).toEqual([answered('a', 'It weighs 3 kg.', '3 kg')]);
    desk.does(setAttribute('a', 'vouched', []));
    desk.does(setAttribute('a', 'evidence', []));
    expect(desk.body).toEqual([paragraph('a', 'It weighs 3 kg.')]);
    expect(desk.does(setAttribute('nowhere', 'evidence', []))).toBe(false);
  });
});

describe('what is written anew', () => {
  const body: Block[] = [
    paragraph('o', 'Opening.', 'm1'),
    { type: 'heading', id: 'h1', level: 2, text: 'Gut' },
    paragraph('a', 'Gut answers.', 'm1'),
    { type: 'heading', id: 'h2', level: 3, text: 'Plain gut' },
    paragraph('b', 'Plain gut breaks.', 'm2'),
    { type: 'heading', id: 'h3', level: 2, text: 'Steel' },
    paragraph('c', 'Steel lasts.', 'm3'),
  ];
  it('is what is picked, or the section it begins in without its heading', () => {
    const desk = new Desk(body);
    const ids = (words: string, scope: 'blocks' | 'section') => idsAt(desk.at(words).state, scope);
    expect(ids('answers', 'blocks')).toEqual(['a']);
    expect(ids('answers', 'section')).toEqual(['a', 'h2', 'b']);
    expect(ids('breaks', 'section')).toEqual(['b']);
    expect(ids('Steel', 'section')).toEqual(['c']);
    expect(ids('Opening', 'section')).toEqual(['o']);
    desk.put(2, desk.state.doc.content.size - 3);
    expect(idsAt(desk.state, 'blocks')).toEqual(body.map(({ id }) => id));
  });

  it('is the opening wherever one types, or some letters of one paragraph', () => {
    const desk = new Desk(body);
    expect(idsAt(desk.at('breaks').state, 'opening')).toEqual(['o']);
    expect(idsAt(new Desk(body.slice(0, 1)).state, 'opening')).toEqual(['o']);
    const letters = (from: number, to: number) => {
      desk.put(from, to);
      return lettersAt(desk.state);
    };
    // The first letter stands at 1.
    expect(letters(1, 5)).toEqual({ from: 0, to: 4 });
    expect(letters(3, 3)).toBeNull();
    expect(letters(1, 1 + 'Opening.'.length)).toBeNull();
    expect(letters(4, 'Opening.'.length + 4)).toBeNull();
  });

  it('takes the place of what was there, rests on what it names alone, and is undone in one', () => {
    const desk = new Desk(body);
    const blocks = [paragraph('x', 'Gut speaks.', 'm9'), paragraph('y', 'It wears.')];
    expect(desk.does(replaceBlocks(['a'], blocks))).toBe(true);
    expect(desk.body.slice(1, 4)).toEqual([
      body[1],
      paragraph('a', 'Gut speaks.', 'm9'),
      paragraph('new1', 'It wears.'),
    ]);
    desk.does(undo);
    expect(desk.body).toEqual(body);
    expect(desk.does(replaceBlocks(['gone'], blocks))).toBe(false);
  });
});

it('whatever is done in whatever order, ids stay single, words keep what they rest on, and undoing it all is as before', () => {
  /** Every paragraph says a word that stands in its own passage only. */
  const start = [1, 2, 3, 4].map((n) => paragraph(`p${n}`, `alpha word${n} beta`, `m${n}`));
  const deeds = fc.record({
    deed: fc.constantFrom(
      'split',
      'join',
      'list',
      'heading',
      'quote',
      'paragraph',
      'out',
      'up',
      'type',
      'undo',
      'redo',
    ),
    at: fc.double({ min: 0, max: 1, noNaN: true }),
  });
  const commands: Record<string, Command> = {
    split: enter,
    join: joinBackward,
    list: turnInto('list'),
    heading: turnInto('heading 2'),
    quote: turnInto('quote'),
    paragraph: turnInto('paragraph'),
    out: outOfList,
    up: moveBlock(-1),
    undo,
    redo,
  };
  fc.assert(
    fc.property(fc.array(deeds, { maxLength: 25 }), (list) => {
      const desk = new Desk(start);
      for (const { deed, at } of list) {
        const { doc } = desk.state;
        const place = TextSelection.near(doc.resolve(Math.round(at * doc.content.size)));
        if (place instanceof TextSelection) desk.put(place.from);
        if (deed === 'join') {
          const first = desk.state.selection.$from.start();
          desk.put(first);
        }
        if (deed === 'type') desk.type('x ');
        else desk.does(commands[deed]!);
        const ids = desk.body.map(({ id }) => id);
        expect(new Set(ids).size).toBe(ids.length);
        for (const block of desk.body) {
          const rests = new Set((block.evidence ?? []).map(({ passage }) => passage));
          for (const [, n] of textOf([block]).matchAll(/word(\d)/g)) expect(rests).toContain(`m${n}`);
        }
      }
      while (desk.does(undo));
      expect(desk.body).toEqual(start);
    }),
    { numRuns: 400, seed: 20_281 },
  );
});
