import { expect, it, test } from 'vitest';
import { readSources } from './honesty.ts';
import { keptPairs } from './pairs/pairs.ts';
import { unsupportedSentences } from './unsupported.ts';

const SOURCES = readSources([
  'Gut strings answer the bow sooner than steel, and go out of tune with every change of the weather. A set costs 90 euros.',
  'Rosin is cooked from the resin of pines. Dark rosin is softer and fits the winter.',
]);

it.each([
  ['Steel answers the bow later than gut.', false],
  ['Ninety euros buy everything needed.', false],
  ['Chamber halls favour smaller violins from Italy.', true],
  ['Practise scales slowly every morning before breakfast.', true],
  // What is asked, and what somebody said, claims nothing here.
  ['Should scales be practised every morning before breakfast?', false],
  ['“Practise scales slowly every morning,” says the teacher.', false],
  // Too little to tell.
  ['Here is how.', false],
])('%s: of something else? %s', (text, expected) =>
  expect(unsupportedSentences(text, SOURCES)).toEqual(expected ? [text] : []),
);

test('a text without end, beside sources without end, is told in a time that grows as their length', () => {
  const words = (n: number, from: number, of: string) =>
    Array.from({ length: n }, (_, i) =>
      [...String(from + i)].reduce((word, digit) => word + 'abcdefghij'[Number(digit)], of),
    );
  const source = readSources([words(30_000, 0, 'w').join(' ')]);
  const text = Array.from({ length: 600 }, (_, i) => `Z${words(8, 900_000 + i * 8, 'q').join(' ')}.`).join(' ');
  expect(unsupportedSentences(text, source)).toHaveLength(600);
  expect(unsupportedSentences(`${'a'.repeat(60_000)} b c d.`, source)).toEqual([]);
});

test('of several sentences those that say nothing like the sources are told, as they stand', () => {
  const text =
    'Gut strings answer the bow sooner. Chamber halls favour smaller violins from Italy. A set costs 90 euros.';
  expect(unsupportedSentences(text, SOURCES)).toEqual(['Chamber halls favour smaller violins from Italy.']);
  expect(unsupportedSentences(text, [])).toEqual([]);
});

test.each([
  ['en', 0.5],
  // German has fewer words of content in a sentence of the same length.
  ['de', 0.45],
] as const)(
  'what is true in other words is hardly ever marked, half of what is of something else is: %s',
  (language, seen) => {
    const { fitted, kept } = keptPairs();
    const own = [...fitted, ...kept].filter(([of]) => of === language);
    const isMarked = (sentence: string, passage: string) =>
      unsupportedSentences(sentence, readSources([passage], language), language).length > 0;
    const right = own.filter(([, is]) => is === 'ok');
    expect(right.filter(([, , , passage, sentence]) => isMarked(sentence, passage)).length / right.length).toBeLessThan(
      0.012,
    );
    // The same sentences beside passages on other matters.
    const passages = [...new Set(own.map(([, , , passage]) => passage))];
    const foreign = own.filter(([, , , passage, sentence]) =>
      isMarked(sentence, passages[(passages.indexOf(passage) + 7) % passages.length]!),
    );
    expect(foreign.length / own.length).toBeGreaterThan(seen);
  },
);
