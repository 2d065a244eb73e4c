import fc from 'fast-check';
import { expect, test } from 'vitest';
import { isPlain, plainSentences } from './plain.ts';
import {
  contentStems,
  countWords,
  fold,
  segmentedSentences,
  segmentedWords,
  sentencesOf,
  stem,
  stemCover,
  wordsOfText,
} from './sentence.ts';

test('sentences are cut at their ends, not at abbreviations or decimals', () => {
  expect(sentencesOf('Weigh it. Use 2.5 per cent, e.g. 25 g a kilo. Why? Because spoons lie!')).toEqual([
    'Weigh it.',
    'Use 2.5 per cent, e.g. 25 g a kilo.',
    'Why?',
    'Because spoons lie!',
  ]);
  expect(sentencesOf('')).toEqual([]);
});

test('words count as people count them', () => {
  expect(countWords('A two-litre jar, 2.5 % salt.')).toBe(6);
  expect(countWords('')).toBe(0);
});

test('stems join the forms of a word and leave short and figure words alone', () => {
  expect(stem('crocks')).toBe(stem('crock'));
  expect(stem('fermenting')).toBe(stem('ferment'));
  expect(stem('batches')).toBe(stem('batch'));
  expect(stem('berries')).toBe(stem('berry'));
  expect(stem('Gläser'.toLowerCase(), 'de')).toBe('gläs');
  expect(contentStems('How much salt for the sauerkraut?')).toEqual(['salt', 'sauerkraut']);
  expect(fold('  Gär\u00adTöpfe  ')).toContain('topfe');
  expect(stemCover(['salt', 'kraut'], new Set(['salt']))).toBe(0.5);
});

test('plain text is cut into the same words as by the segmenter of the platform', () => {
  const characters = [...'abZé0 9ß.,:;\'’‘“-–—…!?/%&@#()[]"\n\t°£½²·ºª¡¿+=*$<>|~^{}\\`«»¼µ×÷_日я'];
  const texts = fc.array(fc.constantFrom(...characters), { maxLength: 24 }).map((list) => list.join(''));
  fc.assert(
    fc.property(texts, (text) => {
      expect(wordsOfText(text)).toEqual(segmentedWords(text));
    }),
    { numRuns: 20_000 },
  );
});

test('nor of texts in which some letters are not plain', () => {
  const characters = [..."ab1 .,'’-_\n éŁß½²漢字カ한ا١ไ😀\u200d€→"];
  const texts = fc.array(fc.constantFrom(...characters), { maxLength: 24 }).map((list) => list.join(''));
  fc.assert(
    fc.property(texts, (text) => {
      expect(wordsOfText(text)).toEqual(segmentedWords(text));
    }),
    { numRuns: 5_000 },
  );
});

test('plain text is cut into the same sentences as by the segmenter of the platform', () => {
  const characters = [...'aZé0 .!?,;:–—-…\'"’“()[]«»„‚%&/§½²µ·ºª'].filter(isPlain);
  // Stops, spaces and letters as often as in a text.
  const often = [...'.. !?  aaZZ1'];
  const texts = fc
    .array(fc.constantFrom(...characters, ...often, ...often), { maxLength: 30 })
    .map((list) => list.join('').replace(/\s+/g, ' '));
  fc.assert(
    fc.property(texts, fc.constantFrom('en', 'de', 'fr', 'pl', 'sv'), (text, language) => {
      expect(plainSentences(text)).toEqual(segmentedSentences(text, language));
    }),
    { numRuns: 20_000 },
  );
});

test('sentences of a long run of stops and figures are cut in a time that grows as its length', () => {
  // Each stop looks ahead no further than the next one.
  const text = `${'. 1 '.repeat(200_000)}end`;
  expect(plainSentences(text).join('')).toBe(text);
});
