import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { searchQuestion, searchWords } from './words.ts';

/** Boolean full text search as a database does it, on words parted at spaces. */
function finds(index: string, question: string): boolean {
  const words = index.split(' ');
  const has = (term: string): boolean => {
    if (term.startsWith('"')) {
      const phrase = term.slice(1, -1).split(' ');
      return words.some((_, i) => phrase.every((word, k) => words[i + k] === word));
    }
    return term.endsWith('*') ? words.some((word) => word.startsWith(term.slice(0, -1))) : words.includes(term);
  };
  return [...question.matchAll(/([+-])("[^"]*"|\S+)/g)].every(([, sign, term]) => has(term!) === (sign === '+'));
}
const found = (typed: string, title: string, text = '', within: 'text' | 'title' = 'text') =>
  finds(searchWords(title, text), searchQuestion(typed, within)!);

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
  expect(searchQuestion(typed)).toBeNull();
});

test('whatever is typed, only letters, digits and the signs of a question reach the database', () => {
  fc.assert(
    fc.property(fc.string({ unit: 'binary', maxLength: 60 }), (typed) => {
      const question = searchQuestion(typed);
      if (question !== null)
        expect(question).toMatch(/^(?:[+-](?:"x_[\p{L}\p{N}]+(?: x_[\p{L}\p{N}]+)*"|x_[\p{L}\p{N}]+\*?)(?: |$))+$/u);
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
  expect(searchWords('', 'a'.repeat(1_000_000))).toHaveLength(62);
  expect(searchWords('', '字'.repeat(100_000)).split(' ')).toHaveLength(100_000);
});
