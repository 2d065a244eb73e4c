import { expect, it, test } from 'vitest';
import { readSources } from './honesty.ts';
import { supportOf } from './support.ts';

const SOURCES = readSources([
  'Gut strings answer the bow sooner than steel, and go out of tune with every change of the weather. A set costs 90 euros.',
  'Rosin is cooked from the resin of pines. Dark rosin is softer and fits the winter.',
]);
const support = (text: string) => supportOf(text, SOURCES).support;

it.each([
  ['The bow is answered sooner by strings of gut than by those of steel.', 'rests'],
  ['A set of gut strings is 90 euros.', 'rests'],
  ['Pines give the resin from which rosin is cooked.', 'rests'],
  ['In winter the softer, dark rosin fits.', 'rests'],
  // One thing in it is otherwise there.
  ['A set of gut strings is 190 euros.', 'in part'],
  ['Gut strings answer the bow sooner, which makes them a favourite of chamber players in smaller halls.', 'in part'],
  ['Choose a violin case with a hygrometer and a sturdy handle.', 'nothing'],
  ['Practise scales slowly every morning before breakfast.', 'nothing'],
])('%s → %s', (text, expected) => expect(support(text)).toBe(expected));

test('without sources, or without words, there is nothing it rests on', () => {
  expect(supportOf('A set costs 90 euros.', []).support).toBe('nothing');
  expect(support('… !')).toBe('nothing');
});
