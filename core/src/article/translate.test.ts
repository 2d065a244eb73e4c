import { describe, expect, test } from 'vitest';
import type { ArticleDocument } from './block.ts';
import { unitProblem, unitsOf } from './translate.ts';

const article = {
  title: 'How much salt',
  titleChoices: ['How much salt', 'Salt'],
  slug: 'how-much-salt',
  description: 'Two percent.',
  keywords: ['salt', 'kraut'],
  language: 'en',
  body: [
    { type: 'contents', id: 'c' },
    { type: 'heading', id: 'h', level: 2, text: 'Weigh it' },
    {
      type: 'paragraph',
      id: 'p',
      content: [{ text: 'Take ' }, { text: '20 grams', marks: ['strong'] }, { text: ' a kilo.' }],
      evidence: ['e1'],
    },
    { type: 'list', id: 'l', ordered: false, items: [[{ text: 'wash' }], [{ text: 'salt' }]] },
    {
      type: 'table',
      id: 't',
      head: [[{ text: 'Salt' }], [{ text: 'g' }]],
      rows: [[[{ text: 'sea' }], [{ text: '20' }]]],
    },
    { type: 'question and answer', id: 'q', question: 'Why?', answer: [{ text: 'It keeps.' }] },
  ],
} as unknown as ArticleDocument;

describe('the texts of an article', () => {
  test('a picture stays the same file in every language, and what is seen on it is said in each', () => {
    const figure = {
      type: 'figure',
      id: 'f',
      file: 'a'.repeat(64),
      width: 10,
      height: 10,
      alternative: 'A jar on a scale',
      caption: [{ text: 'Weighed at noon' }],
      credit: [{ text: 'Ada', link: { to: 'address', address: 'https://a.example' } }],
      lead: true,
    };
    const { units, put } = unitsOf({ ...article, body: [figure] } as unknown as ArticleDocument);
    const said = new Map(
      units.map(({ n, text }) => [n, text === 'A jar on a scale' ? 'Ein Glas auf der Waage' : text]),
    );
    expect(units.map(({ text }) => text)).toContain('A jar on a scale');
    expect(put(said).body).toEqual([{ ...figure, alternative: 'Ein Glas auf der Waage' }]);
  });

  test('put back as they were give the article as it was, but for the titles not chosen', () => {
    const { units, put } = unitsOf(article);
    expect(put(new Map(units.map(({ n, text }) => [n, text])))).toEqual({
      ...article,
      titleChoices: ['How much salt'],
    });
    expect(put(new Map())).toEqual({ ...article, titleChoices: ['How much salt'] });
  });

  test('are all that a reader reads, marks as numbered tags, figures alone left out', () => {
    const texts = unitsOf(article).units.map(({ text }) => text);
    expect(texts).toContain('Take <1>20 grams</1> a kilo.');
    expect(texts).not.toContain('20');
    expect(texts).toEqual(expect.arrayContaining(['Weigh it', 'wash', 'sea', 'Why?', 'It keeps.', 'kraut']));
  });

  test('in another language keep ids, evidence and marks, and the address follows the title', () => {
    const { units, put } = unitsOf(article);
    const german: Record<string, string> = {
      'How much salt': 'Wie viel Salz',
      'Take <1>20 grams</1> a kilo.': 'Auf ein Kilo <1>20 Gramm</1>.',
    };
    const out = put(new Map(units.map(({ n, text }) => [n, german[text] ?? text])));
    expect([out.title, out.slug]).toEqual(['Wie viel Salz', 'wie-viel-salz']);
    expect(out.body[2]).toEqual({
      ...article.body[2],
      content: [{ text: 'Auf ein Kilo ' }, { text: '20 Gramm', marks: ['strong'] }, { text: '.' }],
    });
  });
});

test.each([
  ['Take 20 g.', 'Nimm 20 g.', null],
  ['Take 20 g.', '', /^nothing was given for ‘Take 20 g\.’$/],
  ['Take 20 g.', 'Nimm 30 g.', /^the figure 20 was lost in ‘Take 20 g\.’$/],
  ['A <1>link</1>.', 'Ein Verweis.', /^a link or emphasis was lost in ‘A <1>link<\/1>\.’$/],
  ['Take salt.', '[[de]] Take salt.', /left untranslated/],
  ['The V-4P holds its pH.', 'Das V-4P hält seinen pH.', null],
  ['The V-4P holds it.', 'Das Modell hält es.', /name V-4P was lost/],
  ['Its pH falls.', 'Sein Säurewert fällt.', /name pH was lost/],
  ['See https://x.example/a.', 'Siehe dort.', /name https:\/\/x\.example\/a was lost/],
  // An abbreviation and a unit are said otherwise elsewhere.
  ['The EU wants 2L jars.', 'L’UE veut des bocaux de 2 l.', null],
])('%s as ‘%s’', (before, after, problem) => {
  const found = unitProblem(before, after, '[[de]]');
  if (problem === null) expect(found).toBeNull();
  else expect(found).toMatch(problem);
});
