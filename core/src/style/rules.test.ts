import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Block, EMPTY_ARTICLE, type Inline } from '../article/block.ts';
import { blockText } from '../article/text.ts';
import { chanceFrom, textDigest } from '../chance/chance.ts';
import { ReplacementRule } from './document.ts';
import { putBack } from './putBack.ts';
import { byRules, inHouseWords, ruleProblem, textInHouseWords, tokensOf } from './rules.ts';

const rule = (find: string, say: string, more: Partial<ReplacementRule> = {}): ReplacementRule =>
  ReplacementRule.parse({ find, say, ...more });
const paragraph = (content: Inline[] | string, id = 'p'): Block => ({
  type: 'paragraph',
  id,
  content: typeof content === 'string' ? [{ text: content }] : content,
});
const said = (text: string, ...rules: ReplacementRule[]): string =>
  blockText(byRules([paragraph(text)], rules).body[0]!);

describe('words that are replaced', () => {
  it('are whole words in any case, keep a capital, and may be left out', () => {
    expect(said('Utilise it; we UTILISE, not utilised.', rule('utilise', 'use'))).toBe('Use it; we USE, not utilised.');
    expect(said('It is really very good, really.', rule('really', ''))).toBe('It is very good.'.replace('.', ',.'));
    expect(said('A “really” good one', rule('good', 'fine'))).toBe('A “really” fine one');
    expect(said('Salt water in salt  water', rule('salt water', 'brine'))).toBe('Brine in brine');
    expect(said('US and us', rule('US', 'the States', { cased: true }))).toBe('the States and us');
  });

  it('are found in scripts that part no words', () => {
    expect(said('発酵食品は塩水で作ります。', rule('塩水', 'ブライン'))).toBe('発酵食品はブラインで作ります。');
    expect(said('ملح البحر جيد', rule('ملح البحر', 'الملح'))).toBe('الملح جيد');
  });

  it('go to the upper rule where two want them, and nothing that was put is changed again', () => {
    const long = rule('salt water brine', 'brine');
    const short = rule('salt water', 'lake');
    expect(said('salt water brine, salt water', long, short)).toBe('brine, lake');
    expect(said('salt water brine, salt water', short, long)).toBe('lake brine, lake');
    expect(said('cat dog', rule('cat', 'dog'), rule('dog', 'cat'))).toBe('dog cat');
  });

  it('in headings, links and quotations as the rule says; never in code, markup and credits', () => {
    const link: Inline = { text: 'the jar lid', link: { to: 'address', address: 'https://jar.example/jar' } };
    const body: Block[] = [
      { type: 'heading', id: 'h', level: 2, text: 'The jar' },
      paragraph([{ text: 'A jar, ' }, link, { text: ', ' }, { text: 'jar()', marks: ['code'] }], 'p'),
      paragraph('She said “the jar broke” of a jar.', 'r'),
      { type: 'quote', id: 'q', content: [{ text: 'A jar.' }], credit: [{ text: 'The Jar Post' }] },
      { type: "owner's markup", id: 'o', markup: '<i>jar</i>' },
    ];
    const texts = (where: ReplacementRule['where']) =>
      byRules(body, [rule('jar', 'crock', { where })]).body.map((block) =>
        block.type === "owner's markup" ? block.markup : blockText(block),
      );
    expect(texts([])).toEqual([
      'The jar',
      'A crock, the jar lid, jar()',
      'She said “the jar broke” of a crock.',
      'A jar.',
      '<i>jar</i>',
    ]);
    expect(texts(['headings', 'links', 'quotations'])).toEqual([
      'The crock',
      'A crock, the crock lid, jar()',
      'She said “the crock broke” of a crock.',
      'A crock.',
      '<i>jar</i>',
    ]);
    const changed = byRules(body, [rule('jar', 'crock', { where: ['links'] })]).body;
    expect(changed[1]).toMatchObject({ content: [{}, { link: { address: 'https://jar.example/jar' } }, {}, {}] });
    expect(changed[3]).toEqual(body[3]);
    expect(textInHouseWords('A jar', { words: [], spelling: null, rules: [rule('jar', 'crock')] }, 'en')).toBe(
      'A crock',
    );
    const notInTitles = rule('jar', 'crock', { where: [] });
    expect(textInHouseWords('A jar', { words: [], spelling: null, rules: [notInTitles] }, 'en')).toBe('A jar');
  });

  it('across marks, as the first letter of them looks, but never half in a link', () => {
    const bold: Inline[] = [{ text: 'so ' }, { text: 'salt', marks: ['strong'] }, { text: ' water here' }];
    expect(byRules([paragraph(bold)], [rule('salt water', 'brine')]).body[0]).toEqual(
      paragraph([{ text: 'so ' }, { text: 'brine', marks: ['strong'] }, { text: ' here' }]),
    );
    const half: Inline[] = [{ text: 'salt', link: { to: 'article', article: 'x' } }, { text: ' water' }];
    expect(byRules([paragraph(half)], [rule('salt water', 'brine')]).body[0]).toEqual(paragraph(half));
  });
});

describe('patterns', () => {
  it('put parts of what they found, and say what is wrong with them', () => {
    const dates = rule('(\\d{1,2})/(\\d{1,2})/(\\d{4})', '$3-$2-$1 ($$)', { pattern: true });
    expect(said('On 24/12/2025.', dates)).toBe('On 2025-12-24 ($).');
    expect(said('Colour, color', rule('colou?r', 'paint', { pattern: true }))).toBe('paint, paint');
    for (const [find, say, says] of [
      ['(open', '', 'no pattern'],
      ['a*', 'b', 'where there is nothing'],
      ['a(?=b)', '', 'no lookahead'],
      ['(a)\\1', '', 'found before'],
      ['(a)', '$2', 'no part 2'],
      ['(a)', '$1 $7', 'no part 7'],
    ] as const)
      expect(ruleProblem(rule(find, say, { pattern: true })), find).toContain(says);
    expect(ruleProblem(rule('  ', 'x'))).toContain('nothing');
    expect(ruleProblem(dates)).toBeNull();
    expect(ruleProblem(rule('(a)b', '$$7, $1', { pattern: true }))).toBeNull();
    expect(said('ab', rule('(a)b', '$$7, $1', { pattern: true }))).toBe('$7, a');
    expect(said('f(=x', rule('\\(?=x', '!', { pattern: true }))).toBe('f!');
    expect(said('(open', rule('(open', 'x', { pattern: true }), rule('open', 'shut'))).toBe('(shut');
  });

  it('that would run for ever elsewhere are done at once', () => {
    const text = `${'a'.repeat(20_000)}!`;
    for (const find of ['(a+)+$', '(a|aa)+$', '(.*a){12}$', '(x+x+)+y'])
      expect(said(text, rule(find, 'b', { pattern: true }))).toBe(text);
  }, 20_000);
});

describe('what was replaced', () => {
  const rules = [
    rule('jar', 'crock'),
    rule('really', ''),
    rule('(\\d+) g\\b', '$1 grams', { pattern: true }),
    rule('salt water', 'brine'),
  ];

  it('is put back in one act, also where somebody wrote around it; what was changed since stays', () => {
    const text = 'A jar of 20 g really holds salt water, and the next jar 30 g of salt water too.';
    const before = [{ ...paragraph(text), evidence: [{ passage: 'm:1', digest: textDigest(text) }] } as Block];
    const { body, replaced } = byRules(before, rules);
    expect(blockText(body[0]!)).toBe('A crock of 20 grams holds brine, and the next crock 30 grams of brine too.');
    expect(body[0]!.evidence![0]!.digest).toBe(textDigest(blockText(body[0]!)));
    const document = { ...EMPTY_ARTICLE, body, replaced };
    expect(putBack(document)).toEqual({ document: { ...EMPTY_ARTICLE, body: before }, stayed: 0 });
    const edited = blockText(body[0]!).replace('the next crock 30', 'my own pot, 30').replace(/^/, 'Well now: so. ');
    const kept = putBack({ ...document, body: [{ ...body[0]!, content: [{ text: edited }] } as Block] });
    expect(kept.stayed).toBeGreaterThan(0);
    expect(blockText(kept.document.body[0]!)).toContain('my own pot');
    expect(blockText(kept.document.body[0]!)).toContain('salt water too.');
    expect(kept.document.replaced).toBeUndefined();
    expect(putBack({ ...document, body: [] }).stayed).toBe(replaced.length);
  });

  it('comes back letter by letter in any text, of lists and cells too (200 drawn)', () => {
    const chance = chanceFrom('put back');
    const words = ['jar', 'really', 'salt', 'water', '20', 'g', 'brine', 'crock', 'Jar', 'the', 'of,', 'an'];
    const drawn = () =>
      Array.from({ length: 3 + Math.floor(chance() * 12) }, () => words[Math.floor(chance() * words.length)]!).join(
        ' ',
      );
    for (let i = 0; i < 200; i++) {
      const body: Block[] = [
        paragraph(drawn(), 'a'),
        { type: 'list', id: 'l', ordered: false, items: [[{ text: drawn() }], [{ text: drawn() }]] },
        { type: 'table', id: 't', head: [[{ text: drawn() }]], rows: [[[{ text: drawn() }]]] },
      ];
      const done = byRules(body, rules);
      const back = putBack({ ...EMPTY_ARTICLE, body: done.body, replaced: done.replaced });
      expect(back.document.body.map(blockText), JSON.stringify(body)).toEqual(body.map(blockText));
    }
  });

  it('stands after the words of the house', () => {
    const style = { words: [{ use: 'crock', not: ['jar'] }], spelling: null, rules: [rule('crock', 'pot')] };
    const done = inHouseWords([paragraph('A jar.')], style, 'en');
    expect([blockText(done.body[0]!), done.reworded]).toEqual([
      'A pot.',
      [
        { from: 'jar', to: 'crock' },
        { from: 'crock', to: 'pot' },
      ],
    ]);
  });

  it('a thousand rules find what each of them would find alone', () => {
    const many = Array.from({ length: 1_000 }, (_, i) => rule(`word${i}`, `other${i}`));
    const text = many.map(({ find }) => find).join(' ');
    expect(said(text, ...many)).toBe(many.map(({ say }) => say).join(' '));
  });
});

it('words are told apart alike in plain and in any text', () => {
  fc.assert(
    fc.property(
      fc.string({
        unit: fc.constantFrom(...[...Array(256).keys()].map((n) => String.fromCharCode(n)), '–', '’', '„', '…'),
        maxLength: 60,
      }),
      (text) => {
        expect(tokensOf(text)).toEqual(tokensOf(text, false));
      },
    ),
    { numRuns: 2_000 },
  );
});
