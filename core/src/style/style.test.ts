import { describe, expect, it } from 'vitest';
import { type Block, EMPTY_ARTICLE } from '../article/block.ts';
import { EACH } from '../article/blocks/each.ts';
import { blockText } from '../article/text.ts';
import { chanceFrom, textDigest } from '../chance/chance.ts';
import { styleProblems } from '../procedure/houseStyles.ts';
import { stepKinds } from '../procedure/registry.ts';
import { comparedWithStyle } from './compare.ts';
import { HouseStyleDocument, PLAIN_STYLE } from './document.ts';
import { favouredWords } from './favoured.ts';
import { figuresOfText, figuresOver } from './figures.ts';
import { openingOf } from './grammar.ts';
import { reworded, rewordedText, unwantedIn } from './reword.ts';
import { withStanding } from './standing.ts';
import { describedBy, toldToWriter } from './told.ts';

const style = (change: Partial<HouseStyleDocument>): HouseStyleDocument => ({ ...PLAIN_STYLE, ...change });
const paragraph = (id: string, text: string): Block => ({
  type: 'paragraph',
  id,
  content: [{ text }],
  evidence: [{ passage: 'p:1', digest: textDigest(text) }],
});
const heading = (id: string, text: string): Block => ({ type: 'heading', id, level: 2, text });

const CURT =
  'Oil the chain. Wipe it first. Use two drops a link. Wait ten minutes. Wipe it again. Check the brakes. Turn the barrel until it bites.';
const CHATTY =
  "Well, if you're anything like us, you'll have let the chain go dry at some point; don't worry, because it happens to everybody who rides through the winter! Isn't it odd how a bicycle, which asks for so little, can be neglected for such a long time? We've all been there, and we'd rather laugh about it.";

describe('figures of a text', () => {
  it('are counted as by hand', () => {
    const { words, sentences, figures, persons, openings } = figuresOfText(
      "We rest it for 20 minutes. Don't hurry; you will see, it's well worth 2.5 hours! Why? Press it down.",
      'en',
    );
    // Words: 6 + 10 + 1 + 3. The figures: 20 and 2.5. Commas: one in four sentences.
    expect([words, sentences]).toEqual([20, 4]);
    expect(figures.sentence).toBe(5);
    expect(figures.figures).toBe(10);
    expect(figures.contractions).toBe(10);
    expect(figures.commas).toBe(0.25);
    expect(figures.semicolons).toBe(50);
    expect(figures.exclamations).toBe(50);
    expect(figures.questions).toBe(25);
    expect(figures.long).toBe(0);
    expect(persons).toEqual({ I: 0, we: 0.5, you: 0.5 });
    expect(openings).toEqual({ 'an order': 0.5, 'a figure': 0, 'a question': 0.25, other: 0.25 });
  });

  it('differ where two texts differ', () => {
    const [curt, chatty] = [figuresOfText(CURT, 'en'), figuresOfText(CHATTY, 'en')];
    for (const name of [
      'sentence',
      'long',
      'contractions',
      'commas',
      'semicolons',
      'exclamations',
      'questions',
    ] as const)
      expect(chatty.figures[name], name).toBeGreaterThan(curt.figures[name]);
    expect(chatty.figures.grade).toBeGreaterThan(curt.figures.grade + 3);
    expect(curt.openings['an order']).toBeGreaterThan(0.8);
    expect(chatty.openings['an order']).toBe(0);
    expect([curt.persons.you, chatty.persons.we]).toEqual([0, 0.6]);
  });

  it('of nothing are nothing, and a heading is no part of the sentence below it', () => {
    expect(figuresOfText('', 'en')).toMatchObject({ words: 0, sentences: 0, figures: { sentence: 0, grade: 0 } });
    expect(figuresOfText('Chains and how to keep them\nOil it. Wipe it.', 'en').sentences).toBe(3);
  });

  it('are read in a line of any length', () => {
    for (const text of ['a'.repeat(60_000), '! '.repeat(30_000), "n't".repeat(20_000), '1.'.repeat(30_000)])
      expect(figuresOfText(text, 'en').words).toBeGreaterThanOrEqual(0);
  });

  it('over several texts keep the mean of their words and a range around it', () => {
    const over = figuresOver([figuresOfText(CURT, 'en'), figuresOfText(CHATTY, 'en')]);
    const sentence = over.find(({ name }) => name === 'sentence')!;
    expect(sentence.each).toHaveLength(2);
    expect(sentence.mean).toBeGreaterThan(Math.min(...sentence.each));
    expect(sentence.mean).toBeLessThan(Math.max(...sentence.each));
    expect(sentence.range.from).toBeLessThan(sentence.mean);
    expect(sentence.range.to).toBeGreaterThan(sentence.mean);
    // One text alone still leaves its followers some room.
    const [only] = figuresOver([figuresOfText(CURT, 'en')]);
    expect(only!.range.to - only!.range.from).toBeGreaterThanOrEqual(3);
  });

  it('an order is told by its form', () => {
    const opens = (sentence: string, tongue = 'en') =>
      openingOf(sentence, sentence.match(/[\p{L}\p{N}'’]+/gu) ?? [], tongue);
    for (const one of [
      'Press the leaves down.',
      'Never salt it twice.',
      'Please wait.',
      'Don’t lift the lid.',
      'Wait until it bites.',
    ])
      expect(opens(one), one).toBe('an order');
    for (const one of [
      'The leaves are pressed.',
      'When it bites, stop.',
      'Salt draws water.',
      'After a day it bubbles.',
    ])
      expect(opens(one), one).toBe('other');
    expect(opens('20 grams are enough.')).toBe('a figure');
    expect(opens('Drücken Sie die Blätter.', 'de')).toBe('an order');
    expect(opens('Die Blätter sind trocken.', 'de')).toBe('other');
  });

  it('make a description that says what is so, and words they favour', () => {
    const read = (text: string) => [figuresOfText(text, 'en')];
    const of = (text: string) => describedBy(read(text), figuresOver(read(text)));
    expect(of(CURT)).toContain('Keep sentences short');
    expect(of(CURT)).toContain('Often begin with what to do.');
    expect(of(CURT)).toContain('No exclamation marks.');
    expect(of(CHATTY)).toContain('Speak as “we”, to “you”.');
    expect(of(CHATTY)).toContain('Let sentences run long');
    expect(of(CHATTY)).toContain('Contract as people speak.');
    expect(favouredWords([CURT, 'Wipe the chain dry. The chain is oiled.', 'A chain lasts.'], 'en', 2)).toEqual([
      'chain',
      'wipe',
    ]);
    const sentences = (words: number) => of(`${'Oil '.repeat(words - 1)}chains. `.repeat(4).trim());
    for (const [words, says] of [
      [13, 'Keep sentences short'],
      [14, 'Write sentences of middling length'],
      [18, 'Write sentences of middling length'],
      [19, 'Let sentences run long'],
    ] as const)
      expect(sentences(words)).toContain(`${says}, about ${words} words`);
    // What stands more often comes first, whatever its letters.
    expect(favouredWords(['Zinc, zinc and zinc on an apple.', 'Zinc beside an apple.'], 'en')).toEqual([
      'zinc',
      'apple',
    ]);
  });
});

describe('the words of the house', () => {
  const words = [
    { use: 'brine', not: ['salt water', 'salty water'] },
    { use: 'crock', not: ['pot'] },
    { use: 'throw it out', not: ['discard'] },
  ];

  it('stand in place of others, in their case and number, the longest first', () => {
    const said = (text: string, language = 'en') => rewordedText(text, { words, spelling: null }, language);
    expect(said('Salt water fills the pot. POTS hold it; two pots do.')).toBe(
      'Brine fills the crock. CROCKS hold it; two crocks do.',
    );
    expect(said('Discard it. She discards it.')).toBe('Throw it out it. She discards it.');
    expect(said('A potted plant, a teapot, pot-bound.')).toBe('A potted plant, a teapot, crock-bound.');
    expect(said('Zwei pots stehen da, ein pot auch.', 'de')).toBe('Zwei pots stehen da, ein crock auch.');
    // What came of one word is not made into another.
    const chain = [
      { use: 'jar', not: ['glass'] },
      { use: 'vessel', not: ['jar'] },
    ];
    expect(rewordedText('A glass and a jar.', { words: chain, spelling: null }, 'en')).toBe('A jar and a vessel.');
  });

  it('are spelt as the house spells, in English alone', () => {
    const said = (text: string, language: string) => rewordedText(text, { words: [], spelling: 'British' }, language);
    expect(said('Mold gives it a gray color.', 'en')).toBe('Mould gives it a grey colour.');
    expect(said('Mold gives it a gray color.', 'de')).toBe('Mold gives it a gray color.');
    expect(said('A pH meter, 2 meters off, on a two-meter shelf.', 'en')).toBe(
      'A pH meter, 2 metres off, on a two-metre shelf.',
    );
  });

  it('leave quotations, code and links’ addresses as they are; evidence goes along', () => {
    const body: Block[] = [
      paragraph('b1', 'Fill the pot.'),
      { type: 'quote', id: 'q1', content: [{ text: 'I never use a pot.' }] },
      {
        type: 'paragraph',
        id: 'b2',
        content: [
          { text: 'The pot', link: { to: 'address', address: 'https://pot.example/pot' } },
          { text: ' is ' },
          { text: 'pot()', marks: ['code'] },
        ],
      },
      heading('h1', 'Which pot'),
    ];
    const { body: out, notes } = reworded(body, { words, spelling: null }, 'en');
    expect(out.map(blockText)).toEqual(['Fill the crock.', 'I never use a pot.', 'The crock is pot()', 'Which crock']);
    expect(notes.map(({ block, from, to }) => [block, from, to])).toEqual([
      ['b1', 'pot', 'crock'],
      ['b2', 'pot', 'crock'],
      ['h1', 'pot', 'crock'],
    ]);
    expect(out[0]!.evidence).toEqual([{ passage: 'p:1', digest: textDigest('Fill the crock.') }]);
    expect(out[2]).toMatchObject({ content: [{ link: { address: 'https://pot.example/pot' } }, {}, {}] });
  });

  it('said again change nothing more, whatever the words and texts (100 drawn)', () => {
    const WORDS = ['pot', 'crock', 'jar', 'lid', 'brine', 'salt', 'water', 'stone', 'weight'];
    for (let n = 0; n < 100; n++) {
      const chance = chanceFrom(`reword ${n}`);
      const one = () => WORDS[Math.floor(chance() * WORDS.length)]!;
      // Nothing the house says is something it does not say.
      const [uses, nots] = [WORDS.slice(0, 4), WORDS.slice(4)];
      const words = nots.map((not, i) => ({ use: uses[i % uses.length]!, not: [not] })).filter(() => chance() < 0.7);
      const text = Array.from({ length: 30 }, one).join(' ');
      const once = rewordedText(text, { words, spelling: null }, 'en');
      expect(rewordedText(once, { words, spelling: null }, 'en')).toBe(once);
      for (const { not } of words) expect(once.split(' ')).not.toContain(not[0]);
      expect(
        unwantedIn({ title: '', body: [paragraph('b', once)], language: 'en' }, { words, never: [], spelling: null }),
      ).toEqual([]);
    }
  });

  it('that the house never says are found wherever they stand', () => {
    const found = unwantedIn(
      { title: 'A superfood', body: [paragraph('b1', 'Gut health, they say. It is no super food.')], language: 'en' },
      { words, never: ['superfood', 'gut health'], spelling: null },
    );
    expect(found).toEqual([
      { block: null, words: 'superfood', instead: null },
      { block: 'b1', words: 'Gut health', instead: null },
    ]);
  });
});

describe('texts of the house in an article', () => {
  const body: Block[] = [
    paragraph('b0', 'It opens.'),
    heading('h1', 'One'),
    paragraph('b1', 'First.'),
    { type: 'quote', id: 'q1', content: [{ text: 'Said.' }] },
    heading('h2', 'Two'),
    paragraph('b2', 'Second.'),
  ];
  const put = (change: Partial<HouseStyleDocument>, of: readonly Block[] = body, seed = 'seed') =>
    withStanding(of, style(change), { seed, fill: (text) => (text.includes('{{ lost }}') ? null : text) });
  const order = (blocks: readonly Block[]) => blocks.map(({ id }) => id).join(' ');

  it('stand where they are to stand', () => {
    const at = (place: HouseStyleDocument['standing'][number]['at'], section = 1) =>
      order(put({ standing: [{ at: place, section, markup: false, texts: ['Ours.'] }] }).body);
    expect(at('above the opening')).toBe('house1x1 b0 h1 b1 q1 h2 b2');
    expect(at('below the opening')).toBe('b0 house1x1 h1 b1 q1 h2 b2');
    expect(at('before the first quotation')).toBe('b0 h1 b1 house1x1 q1 h2 b2');
    expect(at('after a section', 1)).toBe('b0 h1 b1 q1 house1x1 h2 b2');
    expect(at('after a section', 9)).toBe('b0 h1 b1 q1 h2 b2 house1x1');
    expect(at('at the end')).toBe('b0 h1 b1 q1 h2 b2 house1x1');
    const picture: Block = { ...EACH.figure, id: 'f0', lead: true };
    const above = (of: readonly Block[], place: 'above the opening' | 'below the opening') =>
      order(put({ standing: [{ at: place, section: 1, markup: false, texts: ['Ours.'] }] }, of).body);
    // The lead picture stays on top; without an opening what stands below it stands below the picture.
    expect(above([picture, ...body], 'above the opening')).toBe('f0 house1x1 b0 h1 b1 q1 h2 b2');
    expect(above([picture, ...body.slice(1)], 'below the opening')).toBe('f0 house1x1 h1 b1 q1 h2 b2');
    expect(above([picture], 'below the opening')).toBe('f0 house1x1');
    expect(above([{ ...picture, lead: false }, ...body], 'above the opening')).toBe('house1x1 f0 b0 h1 b1 q1 h2 b2');
  });

  it('come once, however often they are put; call and disclosure at the very end', () => {
    const change: Partial<HouseStyleDocument> = {
      standing: [
        { at: 'above the opening', section: 1, markup: false, texts: ['One.\n\nMore.'] },
        { at: 'above the opening', section: 1, markup: false, texts: ['Two.'] },
        { at: 'at the end', section: 1, markup: false, texts: ['See [our shop](https://shop.example/a).'] },
      ],
      call: { before: 'Not sure?', button: 'Ask us', address: '/ask', size: 'full', side: 'middle' },
      disclosure: 'Drafted by machine.',
    };
    const once = put(change).body;
    expect(order(once)).toBe('house1x1 house1x2 house2x1 b0 h1 b1 q1 h2 b2 house3x1 housecall housetold');
    expect(put(change, once).body).toEqual(once);
    expect(once.at(-3)).toMatchObject({
      type: 'standing text',
      content: [{ text: 'See ' }, { text: 'our shop', link: { address: 'https://shop.example/a' } }, { text: '.' }],
    });
    expect(once.at(-2)).toMatchObject({ type: 'call to action', button: 'Ask us', link: { address: '/ask' } });
    expect(once.at(-1)).toMatchObject({ type: 'disclosure' });
  });

  it('are chosen by seed; what cannot be filled is left out and told, and so is a call that leads nowhere', () => {
    const texts = ['A {plain|fine} day.', 'Another.', 'A third.'];
    const standing = [{ at: 'at the end' as const, section: 1, markup: false, texts }];
    const chosen = (seed: string) => blockText(put({ standing }, body, seed).body.at(-1)!);
    expect(chosen('a')).toBe(chosen('a'));
    expect(new Set(Array.from({ length: 40 }, (_, i) => chosen(`${i}`))).size).toBe(4);
    const lost = put({ standing: [{ at: 'at the end', section: 1, markup: false, texts: ['By {{ lost }}.'] }] });
    expect([order(lost.body), lost.leftOut]).toEqual([order(body), ['By {{ lost }}.']]);
    const nowhere = put({
      call: { before: '', button: 'Go', address: 'javascript:alert(1)', size: 'medium', side: 'left' },
    });
    expect([order(nowhere.body), nowhere.leftOut]).toEqual([order(body), ['javascript:alert(1)']]);
  });
});

describe('what a writer is told, and an article beside it', () => {
  it('says every word of the style, and nothing where there is none', () => {
    expect(toldToWriter(PLAIN_STYLE, 'en')).toBe('');
    const told = toldToWriter(
      style({
        voice: 'Like someone with wet hands.',
        address: 'familiar',
        spelling: 'British',
        words: [{ use: 'brine', not: ['salt water', 'lake'] }],
        never: ['detox'],
        ranges: { sentence: { from: 9.4, to: 15.6 }, exclamations: { from: 0, to: 0 } },
      }),
      'de',
    );
    expect(told).toBe(
      'Like someone with wet hands. Speak to the reader as du, never as Sie. Sentences have 9 to 16 words on average. No exclamation marks. Say “brine”, not “salt water” or “lake”. Never say “detox”.',
    );
    expect(toldToWriter(style({ spelling: 'British', address: 'formal' }), 'en')).toBe(
      'Spell as British English does.',
    );
  });

  it('each point of an article is within or out, with what to do and where', () => {
    const article = {
      ...EMPTY_ARTICLE,
      title: 'Pots',
      body: [
        paragraph('b1', 'We wait.'),
        paragraph('b2', 'We wait! We really do wait for it! Always!'),
        heading('h', 'Detox'),
      ],
    };
    const house = style({
      person: 'third person',
      words: [{ use: 'crock', not: ['pot'] }],
      never: ['detox'],
      ranges: { exclamations: { from: 0, to: 2 }, sentence: { from: 1, to: 10 }, figures: { from: 2, to: 4 } },
    });
    const { figures, unwanted, person } = comparedWithStyle(article, house);
    const of = (name: string) => figures.find((one) => one.name === name)!;
    expect(of('exclamations')).toMatchObject({ within: false, mend: 'Use full stops.', place: 'b2' });
    expect(of('sentence')).toMatchObject({ within: true, mend: null });
    expect(of('figures')).toMatchObject({ within: false, mend: 'Say how much, how long, how warm.', place: null });
    expect(of('grade')).toMatchObject({ within: null, range: null });
    expect(unwanted).toEqual([
      { block: null, words: 'Pots', instead: 'Crocks' },
      { block: 'h', words: 'Detox', instead: null },
    ]);
    expect(person).toContain('neither as “I” or “we”');
    expect(comparedWithStyle(article, style({ person: 'first person plural' })).person).toBeNull();
    expect(comparedWithStyle(article, style({ person: 'second person' })).person).toContain('never does');
  });

  it('a document is refused with what is wrong, and read with what it lacks', () => {
    expect(HouseStyleDocument.parse({ grivo: 1 })).toEqual(PLAIN_STYLE);
    expect(HouseStyleDocument.safeParse({ grivo: 1, tone: 'x' }).success).toBe(false);
    expect(HouseStyleDocument.safeParse({ grivo: 1, values: [{ name: 'Shop Name', text: 'x' }] }).success).toBe(false);
    expect(HouseStyleDocument.safeParse({ grivo: 1, words: [{ use: 'a', not: [] }] }).success).toBe(false);
  });
});

it('a step names a house style only where it keeps to one, and one that is there', () => {
  const context = (hasStyle?: (id: string) => boolean) =>
    ({ names: {}, hasBlog: () => true, hasSource: () => true, ...(hasStyle ? { hasStyle } : {}) }) as never;
  const write = { ...stepKinds.write.fresh('w1'), style: 'x'.repeat(20) } as never;
  const publish = { ...stepKinds.publish.fresh('p1'), style: 'x'.repeat(20) } as never;
  const sentences = (step: never, hasStyle?: (id: string) => boolean) =>
    styleProblems(step, context(hasStyle)).map(({ sentence }) => sentence);
  expect(sentences(write, () => true)).toEqual([]);
  expect(sentences(write)).toEqual([]);
  expect(sentences(write, () => false)).toEqual(['The house style it names is not there.']);
  expect(sentences(publish, () => true)).toEqual(['This step keeps to no house style.']);
  expect(sentences(stepKinds.write.fresh('w1') as never, () => false)).toEqual([]);
});
