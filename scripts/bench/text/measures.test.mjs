import { EMPTY_ARTICLE } from '@grivo/core';
import { expect, test } from 'vitest';
import { measured } from './measures.mjs';

const SOURCE =
  'Gut strings answer the bow sooner than steel. They go out of tune with the weather. A set costs 90 euros.';
const block = (id, text, passage = 'p') => ({
  type: 'paragraph',
  id,
  content: [{ text }],
  evidence: passage ? [{ passage, digest: '' }] : [],
});
const heading = (text) => ({ type: 'heading', id: text, level: 2, text });
const article = (body, change = {}) => ({
  document: { ...EMPTY_ARTICLE, language: 'en', title: 'Gut or steel', ...change, body },
  passages: [{ id: 'p', text: SOURCE }],
  subject: 'gut strings',
});
const of = (...articles) => measured(articles).figures;

test('what stands word for word in a source, whole and in runs of five', () => {
  const copied = of(
    article([block('1', 'Gut strings answer the bow sooner than steel. Nothing of this stands there.')]),
  );
  expect(copied).toMatchObject({ sentencesFromSources: 0.5, brokenSentences: 0, unsupported: 0 });
  expect(copied.runsFromSources).toBeCloseTo(4 / 5, 2);
});

test('sentences that stand in two articles', () => {
  const same = block('1', 'A set is worth its 90 euros. It is.');
  expect(of(article([same]), article([same])).sentencesShared).toBe(1);
  expect(of(article([same])).sentencesShared).toBe(0);
  // Two versions of one article, under different titles.
  expect(of({ ...article([same]), brief: 'b' }, { ...article([same]), brief: 'b' }).sentencesShared).toBe(0);
});

test('headings without a word of their section, or with more of another’s', () => {
  const tune = block(
    '1',
    'They go out of tune, and tune again, whenever the weather turns; the tune of a hall is no matter of taste.',
  );
  const price = block(
    '2',
    'A set is 90 euros. That is a price for a set of strings that is worth the price of a long evening of playing.',
  );
  expect(of(article([heading('Tune and weather'), tune, heading('The price'), price])).unfitHeadings).toBe(0);
  expect(of(article([heading('The price'), tune, heading('Tune and weather'), price])).unfitHeadings).toBe(2);
  expect(of(article([heading('Rosin'), tune])).unfitHeadings).toBe(1);
});

test('bare titles, copied descriptions, pictures that are all described alike', () => {
  expect(of(article([], { title: 'Gut Strings' })).bareTitles).toBe(1);
  expect(of(article([], { description: 'A set costs 90 euros.' })).copiedDescriptions).toBe(1);
  expect(of(article([], { description: 'What a set is worth.' })).copiedDescriptions).toBe(0);
  const words = ['', 'gut', 'gut', 'nylon', 'silk'];
  const picture = (n) => ({
    type: 'figure',
    id: 'f',
    file: 'f',
    width: 1,
    height: 1,
    alternative: `A drawing of ${words[n]} strings`,
    lead: true,
  });
  // What tells them apart is the subject alone in the first two.
  expect(of(...[1, 2, 3, 4].map((n) => article([picture(n)]))).sameAlternatives).toBe(2);
  expect(of(...[1, 3, 4].map((n) => article([picture(n)]))).sameAlternatives).toBe(0);
});

test.each([
  ['It has no end', 1],
  ['begins small.', 1],
  ['It hangs on the.', 1],
  ['It says it it twice.', 1],
  ['It has (one bracket.', 1],
  ['“It is said,” he said. (It is.)', 0],
])('‘%s’ is broken: %i', (text, broken) => expect(of(article([block('1', text)])).brokenSentences).toBe(broken));

test('what rests on nothing, and sentences that begin alike', () => {
  const figures = of(
    article([
      block('1', 'Choose a case with a hygrometer and a sturdy handle for every journey.'),
      block('2', 'A set of gut is 90 euros. A set of gut answers the bow. A set of gut goes out of tune.'),
    ]),
  );
  expect(figures.unsupported).toBe(0.5);
  expect(figures.repeatedOpenings).toBeCloseTo(2 / 4, 2);
});
