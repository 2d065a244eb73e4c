import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { type ArticleDocument, type Block, EMPTY_ARTICLE } from '../article/block.ts';
import { articleText, linksOf } from '../article/text.ts';
import { linkUses, relinked } from './relink.ts';
import { applyRules, compileRules, type LinkRule } from './rules.ts';

let n = 0;
const rule = (words: string, more: Partial<LinkRule> = {}): LinkRule => ({
  id: `r${n++}`,
  words,
  address: `https://shop.example/${words.replaceAll(' ', '-')}`,
  most: 1,
  placing: 'first',
  after: 0,
  forms: true,
  anyCase: true,
  sponsored: true,
  ...more,
});
const p = (id: string, text: string): Block => ({ type: 'paragraph', id, content: [{ text }] });
const article = (...body: Block[]): ArticleDocument => ({ ...EMPTY_ARTICLE, body });
const applied = (doc: ArticleDocument, rules: LinkRule[], language = 'en') =>
  applyRules(doc, compileRules(rules, language));
const linked = (doc: ArticleDocument) => linkUses(doc).map(({ anchor }) => anchor);

describe('words that have a rule', () => {
  const salt = rule('sea salt');
  const grey = rule('grey sea salt');
  const bottle = rule('swing-top bottle', { most: 2, placing: 'spread' });

  test('the longest words count, plurals and capitals with them', () => {
    const { article: out, placed } = applied(
      article(p('1', 'Grey sea salt melts. Sea salts differ. A Swing-top bottle, two swing-top bottles.')),
      [salt, bottle, grey],
    );
    expect(linked(out)).toEqual(['Grey sea salt', 'Sea salts', 'Swing-top bottle', 'swing-top bottles']);
    expect(placed.map((one) => one.rule)).toEqual([grey.id, salt.id, bottle.id, bottle.id]);
    expect(out.body.flatMap(linksOf)[0]).toMatchObject({ sponsored: true });
  });

  test('headings, quotations, links, code, addresses and parts of words are left alone, and it is said why', () => {
    const { article: out, alone } = applied(
      article(
        { type: 'heading', id: 'h', level: 2, text: 'Sea salt first' },
        { type: 'quote', id: 'q', content: [{ text: 'Any sea salt will do' }] },
        {
          type: 'paragraph',
          id: '1',
          content: [
            { text: 'sea salt', link: { to: 'address', address: 'https://a.example' } },
            { text: ' and ' },
            { text: 'sea salt', marks: ['code'] },
            { text: ' at www.sea-salt.example/sea salt-free sea salt-cellars' },
          ],
        },
      ),
      [rule('sea salt', { most: 9 })],
    );
    expect(linked(out)).toEqual(['sea salt']);
    expect(alone.map(({ why }) => why)).toEqual(['heading', 'quotation', 'link']);
  });

  test('as often as it says: the first, or spread over all places; not before so many words', () => {
    const doc = article(...Array.from({ length: 6 }, (_, i) => p(String(i), `The lid number ${i} fits.`)));
    const blocks = (rules: LinkRule[]) => applied(doc, rules).placed.map(({ block }) => block);
    expect(blocks([rule('lid', { most: 2 })])).toEqual(['0', '1']);
    expect(blocks([rule('lid', { most: 2, placing: 'spread' })])).toEqual(['0', '3']);
    expect(blocks([rule('lid', { most: 2, after: 12 })])).toEqual(['3', '4']);
    expect(blocks([rule('lid', { most: 0 })])).toEqual([]);
  });

  test('a second time nothing is added: what leads there already counts', () => {
    const doc = article(p('1', 'A lid. A lid. A lid.'));
    const once = applied(doc, [rule('lid', { most: 2, address: 'https://l.example' })]).article;
    expect(linked(once)).toEqual(['lid', 'lid']);
    expect(applied(once, [rule('lid', { most: 2, address: 'https://l.example' })]).placed).toEqual([]);
  });

  test('case and forms count only where the rule says so', () => {
    const doc = article(p('1', 'Polish jars need polish. Polishes differ.'));
    expect(linked(applied(doc, [rule('Polish', { anyCase: false, forms: false, most: 9 })]).article)).toEqual([
      'Polish',
    ]);
    expect(linked(applied(doc, [rule('polish', { forms: false, most: 9 })]).article)).toEqual(['Polish', 'polish']);
    const german = article(p('1', 'Des Topfes Deckel, zwei Deckeln, ein Topf.'));
    expect(linked(applied(german, [rule('Topf', { most: 9 })], 'de').article)).toEqual(['Topfes', 'Topf']);
  });
});

const WORDS = ['sea', 'salt', 'lid', 'jar', 'grey', 'crock', 'brine', 'swing-top', 'bottle', 'the', 'Lids'];
const someRules = fc.array(
  fc.record({
    words: fc.array(fc.constantFrom(...WORDS), { minLength: 1, maxLength: 3 }).map((words) => words.join(' ')),
    most: fc.integer({ min: 0, max: 3 }),
    placing: fc.constantFrom('first' as const, 'spread' as const),
    after: fc.constantFrom(0, 5, 20),
    forms: fc.boolean(),
    anyCase: fc.boolean(),
  }),
  { maxLength: 12 },
);
const someText = fc.array(fc.constantFrom(...WORDS, '.', ','), { maxLength: 30 }).map((words) => words.join(' '));
const someArticle = fc
  .array(fc.tuple(fc.constantFrom('paragraph', 'heading', 'quote', 'linked'), someText), { maxLength: 6 })
  .map((blocks) =>
    article(
      ...blocks.map(([type, text], i): Block => {
        const id = String(i);
        if (type === 'heading') return { type, id, level: 2, text };
        if (type === 'quote') return { type, id, content: [{ text }] };
        const link = type === 'linked' ? { link: { to: 'address' as const, address: 'https://x.example' } } : {};
        return { type: 'paragraph', id, content: [{ text, ...link }] };
      }),
    ),
  );

test('however rules and texts come: no word changes, no order matters, counts are kept, nothing barred is linked', () => {
  fc.assert(
    fc.property(someRules, someArticle, fc.nat(), (given, doc, turn) => {
      const rules = given.map((one, i) => rule(one.words, { ...one, id: `g${i}`, address: `https://s.example/${i}` }));
      const { article: out, placed } = applied(doc, rules);
      expect(articleText(out)).toBe(articleText(doc));
      const at = rules.length === 0 ? 0 : turn % rules.length;
      const turned = [...rules.slice(at), ...rules.slice(0, at)].reverse();
      expect(applied(doc, turned).article).toEqual(out);
      for (const one of rules)
        expect(placed.filter((link) => link.rule === one.id).length).toBeLessThanOrEqual(one.most);
      for (const [i, block] of doc.body.entries()) {
        const was = linkUses({ body: [block] });
        const isOpen = block.type === 'paragraph' && !block.content.some(({ link }) => link);
        if (!isOpen) expect(linkUses({ body: [out.body[i]!] })).toEqual(was);
      }
    }),
    { numRuns: 400 },
  );
});

test('five thousand rules do what they say, each in its place', () => {
  const rules = Array.from({ length: 5_000 }, (_, i) => rule(`thing${i} of house${i % 7}`, { id: `k${i}` }));
  const doc = article(
    p(
      '1',
      rules
        .slice(0, 200)
        .map(({ words }) => `A ${words}.`)
        .join(' '),
    ),
  );
  expect(applied(doc, rules).placed.map((one) => one.rule)).toEqual(rules.slice(0, 200).map(({ id }) => id));
});

describe('links are led elsewhere', () => {
  const doc = article(
    {
      type: 'paragraph',
      id: '1',
      content: [{ text: 'A ' }, { text: 'lid', link: { to: 'address', address: 'https://old.example' } }],
    },
    {
      type: 'figure',
      id: 'f',
      file: 'x',
      width: 1,
      height: 1,
      alternative: 'A lid',
      lead: false,
      link: { to: 'address', address: 'https://old.example' },
    },
    {
      type: 'call to action',
      id: 'c',
      content: [],
      button: 'Go',
      link: { to: 'address', address: 'https://old.example' },
    },
  );
  test('everywhere, or taken off; a button stays', () => {
    const moved = relinked(doc, 'https://old.example', 'https://new.example');
    expect(linkUses(moved).map(({ target }) => target)).toEqual(
      Array.from({ length: 3 }, () => ({ to: 'address', address: 'https://new.example' })),
    );
    const off = relinked(doc, 'https://old.example', null);
    expect(linkUses(off).map(({ block }) => block)).toEqual(['c']);
    expect(articleText(off)).toBe(articleText(doc));
    expect(relinked(doc, 'https://other.example', null)).toBe(doc);
  });
});
