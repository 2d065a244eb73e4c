import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { type SearchTerm, searchedWordsIn, searchTerms, searchWords } from './words.ts';

/** Finds as a store does it, on the words that are kept. */
function finds(kept: string, terms: readonly SearchTerm[]): boolean {
  const words = [...searchedWordsIn(kept)];
  const has = ({ words: asked, begins }: SearchTerm): boolean =>
    begins ? words.some((word) => word.startsWith(asked[0]!)) : kept.includes(` ${asked.join(' ')} `);
  return terms.every((term) => has(term) !== term.not);
}
const found = (typed: string, title: string, text = '', within: 'text' | 'title' = 'text') =>
  finds(searchWords(title, text), searchTerms(typed, within));

describe('a word is found', () => {
  test.each([
    ['by its beginning', 'straps', 'A strap for a heavy bag: straps that hold', ''],
    ['in any case and without its accents', 'cafe', 'CAFÉ racers', ''],
    ['however common it is', 'the', 'x', 'over the hill'],
    ['however short it is', 'C', 'Vitamin C in winter', ''],
    ['in the text as in the title', 'saddle', 'Bags', 'Under the saddle it is dry.'],
    ['with all others that were asked for', 'saddle dry', 'Bags', 'Under the saddle it is dry.'],
    ['in a script of its own', 'седло', 'Кожаное седло', ''],
    ['in Japanese, from the middle of a run', '自転車', '革の自転車用バッグ', ''],
    ['in Japanese by one letter', '革', '革の自転車用バッグ', ''],
    ['in Japanese by its last letter', 'グ', '革の自転車用バッグ', ''],
    ['in Thai', 'กระเป๋า', 'ซื้อกระเป๋าหนังที่ไหน', ''],
    ['as a figure with a point', '2.5', 'Salt at 2.5 per cent', ''],
    ['in quotation marks, in this order', '"a heavy bag"', 'A strap for a heavy bag', ''],
    ['in quotation marks of another manner', '„a heavy bag“', 'A strap for a heavy bag', ''],
    ['without one that may not stand there', 'bag -saddle', 'A strap for a heavy bag', ''],
  ])('%s', (_, typed, title, text) => {
    expect(found(typed, title, text)).toBe(true);
  });

  test.each([
    ['from within another', 'trap', 'A strap for a bag', ''],
    ['by the beginning of a short one', 'he', 'x', 'over the hedge'],
    ['in another order than in quotation marks', '"bag heavy"', 'A strap for a heavy bag', ''],
    ['with one that may not stand there', 'bag -strap', 'A strap for a heavy bag', ''],
    ['where only one of two stands', 'saddle wet', 'Bags', 'Under the saddle it is dry.'],
    ['in Japanese where its letters stand apart', '自車', '革の自転車用バッグ', ''],
  ])('not %s', (_, typed, title, text) => {
    expect(found(typed, title, text)).toBe(false);
  });

  test('in the title alone, where that is asked for', () => {
    expect(found('saddle', 'Bags', 'Under the saddle', 'title')).toBe(false);
    expect(found('bag', 'Bags', 'Under the saddle', 'title')).toBe(true);
  });
});

test.each(['', '   ', '-', '""', '+*~<>()@', '-saddle', '"…"'])('%j asks for nothing', (typed) => {
  expect(searchTerms(typed)).toEqual([]);
});

test('whatever is typed, nothing is left of it but letters and digits', () => {
  fc.assert(
    fc.property(fc.string({ unit: 'binary', maxLength: 60 }), (typed) => {
      for (const { words } of searchTerms(typed)) for (const word of words) expect(word).toMatch(/^x_[\p{L}\p{N}]+$/u);
    }),
    { numRuns: 2_000 },
  );
});

test('every word of a title finds it, alone and with the others', () => {
  fc.assert(
    fc.property(fc.array(fc.stringMatching(/^[a-zäöüßéа-я]{1,12}$/u), { minLength: 1, maxLength: 12 }), (words) => {
      const title = words.join(' ');
      expect(found(title, title)).toBe(true);
      for (const word of words) expect(found(word, title, 'and more')).toBe(true);
    }),
  );
});

test('a text of a megabyte without a space is taken in its stride', () => {
  expect(searchWords('', 'a'.repeat(1_000_000))).toHaveLength(64);
  expect(searchWords('', '字'.repeat(100_000)).trim().split(' ')).toHaveLength(100_000);
});
