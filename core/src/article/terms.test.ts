import { expect, test } from 'vitest';
import { EMPTY_ARTICLE } from './block.ts';
import { sourceTerms, termsMeasure } from './terms.ts';

const SOURCES = [
  'Rosin is melted resin. Fresh rosin grips the strings; old rosin slips off the strings.',
  'Wipe the strings after playing, since rosin dust dulls the varnish of the strings and the varnish itself.',
  'A humid room softens rosin. The varnish suffers in a humid room.',
].map((text, i) => ({ id: `m:${i + 1}`, text }));
const article = (text: string, more: Partial<typeof EMPTY_ARTICLE> = {}) => ({
  ...EMPTY_ARTICLE,
  keyPhrase: 'rosin',
  body: [{ type: 'paragraph' as const, id: 'b1', content: [{ text }] }],
  ...more,
});

test('terms are words of content that several passages speak of, the most spoken of first', () => {
  // Resin stands once, and a humid room in one passage alone.
  expect(sourceTerms(SOURCES, 'en').map(({ words }) => words)).toEqual(['rosin', 'strings', 'varnish']);
});

test('those of the article are counted in whatever form, its key phrase apart', () => {
  expect(termsMeasure(article('One string, varnished.'), SOURCES)).toMatchObject([{ value: 2, unit: 'of 2' }]);
});

test('of several the lacking are named, and half of them are enough', () => {
  const sources = [
    ...SOURCES,
    { id: 'm:4', text: 'Humid days: humid air, humid hands, and a bridge, a bridge, a bridge.' },
  ];
  const more = [...sources, { id: 'm:5', text: 'A bridge stands on the varnish.' }];
  const [found] = termsMeasure(article('One string and its varnish.'), more);
  expect(found).toMatchObject({ name: 'Related terms', value: 2, least: 2, unit: 'of 4' });
  expect(found!.says).toBe('not spoken of: ‘humid’ and ‘bridge’');
  expect(termsMeasure(article('Strings, varnish, a humid bridge.'), more)[0]!.says).toBe('it speaks of all of them');
});

test('further key phrases come first, whole', () => {
  const [found] = termsMeasure(article('A cake of rosin.', { keywords: ['rosin dust', 'cake'] }), SOURCES);
  expect(found).toMatchObject({ value: 1, unit: 'of 4' });
  expect(found!.says).toBe('not spoken of: ‘rosin dust’, ‘strings’ and ‘varnish’');
});

test('sources in another language have other terms, and of a language whose small words are unknown there are none', () => {
  const german = SOURCES.map((one) => ({ ...one, language: 'de' }));
  expect(termsMeasure(article('Nothing of it.'), german)).toEqual([]);
  expect(termsMeasure(article('Nothing of it.', { language: 'cs' }), SOURCES)).toEqual([]);
});

test('what is done is no term in English, and in German only what has a capital is one', () => {
  const texts = (...all: string[]) => all.map((text, i) => ({ id: `m:${i}`, text }));
  const english = texts(
    'Make the bridge thin; makers make it thin.',
    'They make a bridge of maple, and maple is thin.',
    'A bridge of maple.',
  );
  expect(sourceTerms(english, 'en').map(({ words }) => words)).toEqual(['bridge', 'maple', 'thin']);
  const german = texts(
    'Der Steg steht schief.',
    'Ein Steg steht auf der Decke.',
    'Dort steht der Steg auf der Decke, die Decke hält.',
  );
  expect(sourceTerms(german, 'de').map(({ words }) => words)).toEqual(['Steg', 'Decke']);
});
