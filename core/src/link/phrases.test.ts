import { expect, test } from 'vitest';
import { phrasesOf } from './phrases.ts';

const phrases = (text: string, language = 'en') => phrasesOf(text, language).map(({ at, end }) => text.slice(at, end));

test('a lid and what is done with the jar are no phrase together', () => {
  const found = phrases('Close the lid and set the jar on a cool shelf.');
  expect(found).toContain('lid');
  expect(found).toContain('cool shelf');
  expect(found.join(' | ')).not.toMatch(/and|set/);
});

test.each([
  ['Keep everything under the brine with glass weights, always.', 'glass weights'],
  ['The salt for sauerkraut is weighed.', 'salt for sauerkraut'],
  ['Cleaning the chain pays for itself.', 'Cleaning the chain'],
  ['If you have no proper fermentation weight at hand, wait.', 'fermentation weight'],
  ['We learnt that mulberry vinegar wants air.', 'mulberry vinegar'],
  ['We spent five weekends building a clay oven.', 'building a clay oven'],
  ['Today we are mixing glazes for everybody.', 'mixing glazes'],
  ['We sell handles cracked off mugs.', 'handles'],
])('%s holds ‘%s’', (text, phrase) => {
  expect(phrases(text)).toContain(phrase);
});

test('what somebody does is no name of anything', () => {
  expect(phrases('They skim it daily.')).toEqual([]);
  expect(phrases('It was broken.')).toEqual([]);
  expect(phrases('You can measure twice.')).toEqual([]);
});

test('in German nouns tell themselves, with their adjectives, their genitives and what is done with them', () => {
  expect(phrases('Wer verreist, findet nach dem Ausgeizen der Tomaten die reifen Früchte.', 'de')).toEqual(
    expect.arrayContaining(['Ausgeizen der Tomaten', 'reifen Früchte']),
  );
  expect(phrases('Ab Februar darf man die Kartoffeln vorkeimen lassen.', 'de')).toContain('Kartoffeln vorkeimen');
});

test('in other languages only what small words and marks part is a phrase', () => {
  expect(phrases('Le chou fermenté, avec du sel gris.', 'fr')).toContain('chou fermenté');
});

test('a long text without a word is nothing, and takes no time to speak of', () => {
  expect(phrases('—'.repeat(100_000))).toEqual([]);
  expect(phrases('x'.repeat(100_000)).length).toBeLessThanOrEqual(1);
  expect(phrases('salt '.repeat(20_000)).length).toBeLessThan(10);
});
