import { expect, test } from 'vitest';
import { type ArticleDocument, EMPTY_ARTICLE } from './block.ts';
import { doubtReader } from './doubts.ts';
import { measuresOf } from './measures.ts';
import { germanSyllables, gradeCounts, gradeOf } from './readingGrade.ts';

const paragraph = (id: string, text: string, passage?: string): ArticleDocument['body'][number] => ({
  type: 'paragraph',
  id,
  content: [{ text }],
  evidence: passage ? [{ passage, digest: 'd' }] : [],
});

const DOCUMENT: ArticleDocument = {
  ...EMPTY_ARTICLE,
  language: 'en',
  title: 'How much salt for a crock of cabbage',
  body: [
    { type: 'heading', id: 'h1', level: 2, text: 'Weighing' },
    paragraph('p1', 'Take 25 grams of salt for a kilogram of cabbage. Weigh it on a scale.', 'm:1'),
    paragraph('p2', 'After 41 days it is ready.'),
  ],
};
const passages = (sources: string[]) => sources.map((text, i) => ({ id: `m:${i + 1}`, text }));
const of = (name: string, sources: string[]) =>
  measuresOf(DOCUMENT, passages(sources)).measures.find((one) => one.name === name)!;

test('evidence counts paragraphs, and figures that stand in no source are named', () => {
  const sources = ['For one kilogram of cabbage 25 grams of salt are enough.'];
  expect(of('Evidence', sources)).toMatchObject({ value: 50, least: 100, says: '1 of 2 paragraphs rest on a passage' });
  expect(measuresOf(DOCUMENT, passages(sources)).doubts).toEqual([{ block: 'p2', kind: 'figure', words: '41 days' }]);
  expect(of('Against the sources', sources)).toMatchObject({ value: 1, most: 0 });
  expect(of('Against the sources', [...sources, 'Ready after 41 days.'])).toMatchObject({
    value: 0,
    says: 'figures, dates, names and quotations are as there',
  });
});

test('sentences are measured by their mean, the title by its characters, and an empty article divides by nothing', () => {
  expect(of('Sentences', []).value).toBeCloseTo((9 + 5 + 6) / 3, 0);
  expect(of('Title', []).value).toBe(36);
  expect(
    measuresOf({ ...EMPTY_ARTICLE, language: 'en' }, []).measures.every(({ value }) => Number.isFinite(value)),
  ).toBe(true);
});

const named = (document: Partial<ArticleDocument>, name: string, sources: string[] = []) =>
  measuresOf({ ...EMPTY_ARTICLE, ...document }, passages(sources)).measures.find((one) => one.name === name);

test('what was made from no source is held against none', () => {
  const { doubts, measures } = measuresOf({ ...EMPTY_ARTICLE, body: [paragraph('p1', 'Ready after 41 days.')] }, []);
  expect(doubts).toEqual([]);
  expect(measures.map(({ name }) => name)).not.toContain('Against the sources');
  expect(measures.find(({ name }) => name === 'Evidence')).toMatchObject({
    least: null,
    says: 'nothing in this article rests on a source',
  });
});

test('a text longer than all it was made from is said to be', () => {
  expect(of('Length', ['Salt.'])).toMatchObject({ most: 1, says: 'longer than its sources, which have 1' });
  expect(of('Length', ['Take 25 grams of salt for a kilogram. '.repeat(10)]).says).toBe('about 1 min to read');
});

test('the longest sentence is led to, and one too long is to be parted', () => {
  const long = `We bow ${'and bow '.repeat(20)}slowly.`;
  const body = [paragraph('p1', 'We tune.'), paragraph('p2', long)];
  expect(named({ body }, 'Sentences')).toMatchObject({ place: 'p2', says: 'the longest of 2 has 43: part it' });
});

test('the longest paragraph is led to, and one too long is to be parted', () => {
  const body = [paragraph('p1', 'We tune the gut strings first.'), paragraph('p2', 'We bow. '.repeat(61))];
  expect(named({ body }, 'Longest paragraph')).toMatchObject({
    value: 122,
    most: 120,
    place: 'p2',
    says: 'the longest of 2: part it; 64 words on average',
  });
  expect(named({ body: [] }, 'Longest paragraph')).toBeUndefined();
});

test('support is the share of sentences that say something like what they rest on, and no doubt of another kind', () => {
  const sources = ['For one kilogram of cabbage 25 grams of salt are enough.', 'Gut strings answer the bow sooner.'];
  const body = [
    paragraph(
      'p1',
      'Salt the cabbage with 25 grams a kilogram. Chamber halls favour smaller violins from Italy.',
      'm:1',
    ),
    // True of the other source, which it does not rest on.
    paragraph('p2', 'Gut strings answer sooner under the bow.', 'm:1'),
  ];
  expect(named({ body }, 'Support', sources)).toMatchObject({
    value: 33.3,
    least: 95,
    place: 'p1',
    says: '2 of 3 sentences say nothing like what they rest on',
  });
  // Italy alone.
  expect(named({ body }, 'Against the sources', sources)).toMatchObject({ value: 1 });
  expect(named({ body: [body[0]!] }, 'Support', [])).toBeUndefined();
});

test('sentences that begin alike are counted where they stand close', () => {
  const body = [
    paragraph('p1', 'The bow is new. The bow is long. We play.'),
    paragraph('p2', 'You rest. It ends. The bow waits.'),
  ];
  expect(named({ body }, 'Repeated beginnings')).toMatchObject({ value: 1, place: 'p1', says: '‘The bow …’ again' });
});

test('the key phrase is looked for in title, opening, headings and description, in whatever order its words stand', () => {
  const document: Partial<ArticleDocument> = {
    keyPhrase: 'gut strings',
    title: 'Strings of gut',
    description: 'Which strings answer sooner.',
    body: [paragraph('p1', 'Gut strings answer sooner.'), { type: 'heading', id: 'h', level: 2, text: 'Steel' }],
  };
  expect(named(document, 'Key phrase')).toMatchObject({
    value: 2,
    says: '‘gut strings’ is not in a heading or description',
  });
  expect(named({ ...document, keyPhrase: '' }, 'Key phrase')).toBeUndefined();
});

test('a heading that jumps a level and a picture nobody described are led to', () => {
  const figure = { type: 'figure', id: 'f', file: '', width: 1, height: 1, lead: false } as const;
  const body: ArticleDocument['body'] = [
    { type: 'heading', id: 'h1', level: 2, text: 'Bows' },
    { type: 'heading', id: 'h2', level: 4, text: 'Hair' },
    { ...figure, alternative: '' },
    { ...figure, id: 'g', alternative: 'A bow.' },
  ];
  expect(named({ body }, 'Sections')).toMatchObject({
    place: 'h2',
    says: '‘Hair’ is of level 4 with none of level 3 above it',
  });
  expect(named({ body }, 'Pictures described')).toMatchObject({ value: 1, least: 2, place: 'f' });
});

test('reading grades are those of the published formulas, reckoned by hand', () => {
  // Six words of one syllable: 0.39 · 6 + 11.8 · 1 − 15.59.
  const grade = (sentences: string[], language: string) =>
    gradeOf(
      sentences.map((sentence) => gradeCounts(sentence, language)),
      language,
    );
  expect(grade(['The cat sat on the mat.'], 'en').value).toBeCloseTo(-1.45, 2);
  // Twelve words of 14 syllables in one sentence: 0.39 · 12 + 11.8 · 14/12 − 15.59.
  expect(grade(['The old fiddle on the table needs a new set of strings.'], 'en').value).toBeCloseTo(
    0.39 * 12 + (11.8 * 14) / 12 - 15.59,
    2,
  );
  // Five words: 20 % of three syllables and more, mean 5, 40 % longer than six letters, 40 % of one syllable.
  expect(grade(['Die Darmsaite klingt sofort wärmer.'], 'de').value).toBeCloseTo(
    0.1935 * 20 + 0.1672 * 5 + 0.1297 * 20 - 0.0327 * 40 - 0.875,
    2,
  );
  expect(grade(['Strunan låter.'], 'sv').formula).toBeNull();
  expect(grade([], 'en')).toEqual({ value: 0, formula: null });
});

test.each([
  ['Geige', 2],
  ['Saite', 2],
  ['Häuser', 2],
  ['Idee', 2],
  ['Bogenhaar', 3],
  ['nie', 1],
  ['hm', 1],
])('‘%s’ has %i syllables', (word, n) => {
  expect(germanSyllables(word)).toBe(n);
});

test('what somebody answers for is no doubt as long as those words stand', () => {
  const reader = doubtReader(passages(['For one kilogram of cabbage 25 grams of salt are enough.']), 'en');
  const vouched = [{ words: '41 days', reason: 'We counted', by: 'Ines' }];
  expect(reader([{ ...DOCUMENT.body[2]!, vouched }])).toEqual([]);
  const changed = paragraph('p2', 'After 44 days it is ready.');
  expect(reader([{ ...changed, vouched }]).map(({ words }) => words)).toEqual(['44 days']);
});

test('a block that says the same is not held against the sources again, and one that is changed is', () => {
  const reader = doubtReader(passages(['For one kilogram of cabbage 25 grams of salt are enough.']), 'en');
  expect(reader(DOCUMENT.body)).toEqual([{ block: 'p2', kind: 'figure', words: '41 days' }]);
  expect(reader([...DOCUMENT.body].reverse())).toEqual([{ block: 'p2', kind: 'figure', words: '41 days' }]);
  expect(reader([paragraph('p2', 'After 42 days it is ready.')])).toEqual([
    { block: 'p2', kind: 'figure', words: '42 days' },
  ]);
  expect(reader([paragraph('p2', 'It is ready.')])).toEqual([]);
});
