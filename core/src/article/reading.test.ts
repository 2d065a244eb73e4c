import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { fold, isFoldedByWord, sentencesOf, stemsOfWords, wordsOfText } from '../sentence/sentence.ts';
import type { Block } from './block.ts';
import { ReadText, readBlock, readOther } from './reading.ts';

const LETTERS = [...'abzAZ019 .,;:!?\'"’‘“”„–—()[]-…°£€§ßäöüÄéÇñÿ½²ªº¨´·µ×_\n\t字и'];
const texts = fc.array(fc.constantFrom(...LETTERS, ' ', '. ', 'e.g. ', '2.5', 'U.S. '), { maxLength: 40 });

describe('whatever a text is made of', () => {
  test.each([true, false])('its words are those it is cut into by itself; sentences read first: %s', (first) => {
    fc.assert(
      fc.property(texts, fc.constantFrom('en', 'de', 'el'), (letters, language) => {
        const text = letters.join('');
        const read = new ReadText(text, language);
        if (first) expect(read.sentences.map((one) => one.text)).toEqual(sentencesOf(text, language));
        expect(read.words).toEqual(wordsOfText(text, language));
        expect(read.folded).toEqual(wordsOfText(fold(text), language));
        expect([...read.stems]).toEqual([...new Set(stemsOfWords(wordsOfText(fold(text), language), language))]);
      }),
      { numRuns: 3_000 },
    );
  });
});

test.each([
  ['Crème brûlée für Anfänger – ‘ganz einfach’', true],
  ['A cup … and a half', false],
  ['2½ cups, 3² tiles', false],
])('%s is folded word by word: %s', (text, expected) => {
  expect(isFoldedByWord(text)).toBe(expected);
});

test('a block in another language is read anew, and one with the same words is not', () => {
  const block: Block = { type: 'paragraph', id: 'b1', content: [{ text: 'Sie ist müde. Sie schläft.' }] };
  expect(readBlock(block, 'de')).toBe(readBlock({ ...block }, 'de'));
  expect(readBlock(block, 'en').language).toBe('en');
  expect(readBlock(block, 'de').language).toBe('de');
});

test('a source is read once for as long as it is there, and another of the same words by itself', () => {
  const source = { id: 'm:1', text: 'Two words.' };
  expect(readOther(source, 'en')).toBe(readOther(source, 'en'));
  expect(readOther(source, 'en').words).toEqual(['Two', 'words']);
  expect(readOther({ ...source }, 'en')).not.toBe(readOther(source, 'en'));
});
