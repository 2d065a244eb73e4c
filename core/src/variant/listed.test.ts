import { expect, test } from 'vitest';
import { lines } from '../testing/corpus.ts';
import { allSaid, chooseVariant, countVariants, variantProblem } from './variant.ts';

const TEXTS = [
  'plain',
  '{a|b} jar',
  '{a|{b|c}} {x|y|z}',
  '{|very} good',
  '{a|b',
  'a|b}',
  '{}',
  '{only}',
  `${'{a|'.repeat(19)}b${'}'.repeat(19)}`,
  `${'{a|'.repeat(20)}b${'}'.repeat(20)}`,
  `${'{a|'.repeat(21)}b${'}'.repeat(21)}`,
  '{{ name }} and {a|b}',
  '\\{a|b\\}',
  '',
];

test('texts with choices: what is wrong, how many, which is chosen', async () => {
  const all = TEXTS.map((text) => {
    const chosen = ['s1', 's2', 's3', 's4', 's5'].map((seed) => chooseVariant([text], seed));
    return `${text} → ${variantProblem(text) ?? 'well'}; ${countVariants([text])}; ${chosen.join(' / ')}; ${allSaid(text)}`;
  });
  const many = ['a', 'b', 'c', 'd', 'e', 'f'].map((seed) => chooseVariant(TEXTS.slice(0, 4), seed));
  await expect(
    lines([...all, many.join(' / '), String(countVariants(TEXTS.slice(0, 4))), String(countVariants([]))]),
  ).toMatchFileSnapshot('listed/variants.txt');
});
