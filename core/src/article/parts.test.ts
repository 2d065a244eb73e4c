import { describe, expect, it } from 'vitest';
import type { Block } from './block.ts';
import { emphasised, quotedFrom, restingOn, withFold, withoutEmoji, withRelated } from './parts.ts';
import { sayingsIn } from './sayings.ts';
import { blockText } from './text.ts';

const paragraph = (id: string, text: string): Block => ({ type: 'paragraph', id, content: [{ text }] });
const heading = (id: string, text: string): Block => ({ type: 'heading', id, level: 2, text });
const strong = (body: readonly Block[]) =>
  body.flatMap((block) =>
    block.type === 'paragraph'
      ? block.content.filter(({ marks }) => marks).map(({ text }) => `${block.id}: ${text}`)
      : [],
  );

describe('strong words', () => {
  const body = [
    paragraph('a', 'A bee smoker calms. The bee smoker burns grass.'),
    heading('h', 'Bee smoker'),
    paragraph('b', 'It burns.'),
    paragraph('c', 'Bee-smokers rust.'),
    paragraph('d', 'A bee smoker again.'),
  ];
  it('are the first of each section, in their own case and form, and no letter is lost', () => {
    const out = emphasised(body, 'bee smoker', 'en');
    expect(strong(out)).toEqual(['a: bee smoker', 'c: Bee-smokers']);
    expect(out.map(blockText)).toEqual(body.map(blockText));
  });
  it('are no part of another word, no link and no code; a phrase of no words changes nothing', () => {
    expect(strong(emphasised([paragraph('a', 'Beesmoker, bee smokery.')], 'bee smoker', 'en'))).toEqual([]);
    const linked: Block = {
      type: 'paragraph',
      id: 'l',
      content: [{ text: 'bee smoker', link: { to: 'address', address: 'https://a.example' } }],
    };
    expect(emphasised([linked], 'bee smoker', 'en')).toEqual([linked]);
    expect(emphasised(body, ' … ', 'en')).toEqual(body);
    expect(emphasised(body, 'a.*(b', 'en')).toEqual(body);
  });
});

describe('fold and related articles', () => {
  it('fold above the first heading, where something stands above it', () => {
    const body = [paragraph('a', 'Opens.'), heading('h', 'One')];
    expect(withFold(body, sayingsIn('de')).map(({ id }) => id)).toEqual(['a', 'fold', 'h']);
    expect(withFold(body, sayingsIn('de'))[1]).toMatchObject({ words: 'Weiterlesen' });
    expect(withFold([heading('h', 'One')], sayingsIn('en'))).toHaveLength(1);
    expect(withFold([paragraph('a', 'All.')], sayingsIn('en'))).toHaveLength(1);
  });
  it('articles of ours keep the article, pages their address; none are no block', () => {
    const out = withRelated(
      [],
      [
        { title: 'Ours', address: 'https://b.example/1', article: 'x' },
        { title: 'Page', address: 'https://b.example/2' },
      ],
      sayingsIn('en'),
    );
    expect(out[0]).toMatchObject({
      heading: 'Read next',
      items: [
        [{ text: 'Ours', link: { to: 'article', article: 'x' } }],
        [{ text: 'Page', link: { to: 'address', address: 'https://b.example/2' } }],
      ],
    });
    expect(withRelated([], [], sayingsIn('en'))).toEqual([]);
  });
});

describe('emoji', () => {
  it('are taken out whole, and nothing else is', () => {
    expect(withoutEmoji('🧂 Salt, 20 g (2 %) © ™ 1 #')).toBe('Salt, 20 g (2 %) © ™ 1 #');
    expect(withoutEmoji('So 👩🏽‍🌾 she 🌡️ says ⏳')).toBe('So she says ');
    expect(withoutEmoji('発酵 ملح')).toBe('発酵 ملح');
  });
});

describe('a quotation', () => {
  const passage = 'Light it first. “Dry grass burns cool,” she said, “and paper burns hot.” It costs 4.50 euros.';
  it('is taken as it stands in the passage, signs and spaces of it', () => {
    expect(quotedFrom(passage, 'dry grass   burns cool she said, and paper burns hot')).toBe(
      'Dry grass burns cool,” she said, “and paper burns hot.',
    );
    expect(quotedFrom(passage, 'It costs 4.50 euros')).toBe('It costs 4.50 euros.');
    expect(quotedFrom('Bees hum. Bees hum and dance in May.', 'Bees hum and dance in May')).toBe(
      'Bees hum and dance in May.',
    );
  });
  it.each([
    ['a word of it changed', 'dry straw burns cool she said'],
    ['words left out', 'dry grass cool she said'],
    ['a few words alone', 'burns cool she'],
    ['the end of a word', 'rass burns cool she said'],
    ['nothing', ''],
  ])('is none with %s', (_, quote) => {
    expect(quotedFrom(passage, quote)).toBeNull();
  });
  it('stands after the last paragraph that rests on its passage', () => {
    const body: Block[] = [
      { ...paragraph('a', 'A.'), evidence: [{ passage: 'p:1', digest: '' }] } as Block,
      { ...paragraph('b', 'B.'), evidence: [{ passage: 'p:1', digest: '' }] } as Block,
      paragraph('c', 'C.'),
    ];
    expect([restingOn(body, 'p:1'), restingOn(body, 'p:2')]).toEqual([2, null]);
  });
});
