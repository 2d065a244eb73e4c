import { readFileSync } from 'node:fs';
import { join } from 'node:path';
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

/** Texts with their sources and how far a reader would say they rest on these: made up, and written before any was tried. */
function judged(file: 'english' | 'german') {
  return readFileSync(join(import.meta.dirname, 'supported', `${file}.txt`), 'utf8')
    .split('\n\n')
    .flatMap((group) => {
      const lines = group.trim().split('\n');
      const own = lines.flatMap((line) => (line.startsWith('= ') ? line.slice(2) : []));
      return lines.flatMap((line) => {
        const [, is, text] = /^(rests|in part|nothing) \| (.+)$/.exec(line) ?? [];
        return text === undefined ? [] : [{ language: file === 'german' ? 'de' : 'en', is, text, own }];
      });
    });
}

test('how far a text rests on its sources is told as a reader would', () => {
  const all = [...judged('english'), ...judged('german')];
  expect(all.length).toBeGreaterThanOrEqual(120);
  const wrong = all.flatMap(({ language, is, text, own }) => {
    const told = supportOf(text, readSources(own, language), language).support;
    return told === is ? [] : [{ is, told, text }];
  });
  expect(1 - wrong.length / all.length, JSON.stringify(wrong, null, 1)).toBeGreaterThan(0.9);
  // None that rests on nothing is said to rest on something, or the other way round.
  expect(wrong.filter(({ is, told }) => (is === 'nothing') !== (told === 'nothing')).length).toBeLessThanOrEqual(1);
});
