import { expect, test } from 'vitest';
import { lines, textsIn } from '../testing/corpus.ts';
import { favouredWords } from './favoured.ts';
import { figuresOfText, figuresOver } from './figures.ts';
import { handDistance, handOf, isOfHand } from './hand.ts';
import { describedBy } from './told.ts';

const short = (_key: string, value: unknown) => (typeof value === 'number' ? Number(value.toPrecision(6)) : value);

/** Texts of some length: five passages each, in paragraphs. */
const longer = (language: 'en' | 'de') => {
  const all = textsIn(language, 60);
  return Array.from({ length: 12 }, (_, n) => all.slice(n * 5, n * 5 + 5).join('\n\n'));
};

test.each(['en', 'de'] as const)('figures of texts, and what is said of them (%s)', async (language) => {
  const texts = longer(language);
  const figures = texts.map((text) => figuresOfText(text, language));
  const over = figuresOver(figures);
  const all = [
    ...figures.map((one) => JSON.stringify(one, short)),
    ...over.map((one) => JSON.stringify(one, short)),
    describedBy(figures, over),
    favouredWords(texts, language).join(' '),
    favouredWords(texts.slice(0, 3), language, 5).join(' '),
  ];
  await expect(lines(all)).toMatchFileSnapshot(`listed/figures-${language}.txt`);
});

test.each(['en', 'de'] as const)('a hand, and how far other texts are from it (%s)', async (language) => {
  const texts = longer(language);
  const hand = handOf(texts.slice(0, 8), language);
  const all = [
    JSON.stringify(hand, short),
    ...[...texts, ...textsIn(language, 70).slice(60), ''].map(
      (text) =>
        `${handDistance(hand, text).toPrecision(6)} ${isOfHand(hand, text)} ${text.slice(0, 40).replaceAll('\n', ' ')}`,
    ),
    JSON.stringify(handOf([], language), short),
    JSON.stringify(handOf(texts.slice(0, 1), language), short),
  ];
  await expect(lines(all)).toMatchFileSnapshot(`listed/hand-${language}.txt`);
});
