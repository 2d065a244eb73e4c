import { expect, test } from 'vitest';
import { answers } from './answered.ts';

const ARTICLES = [
  { title: 'How much salt for sauerkraut: too little salt', subject: 'how much salt for sauerkraut' },
  { title: 'Crock weights: glass, stone or a bag', subject: 'fermentation weights' },
  { title: 'Salt', subject: 'salt' },
];

test('an article answers a phrase when it holds all words that carry it, in any form and order', () => {
  const asked = answers(ARTICLES);
  expect(
    ['salt for sauerkraut', 'sauerkraut salting', 'fermenting weight', 'salt', 'salt for kimchi', 'glass crock'].map(
      asked,
    ),
  ).toEqual([0, 0, 1, null, null, 1]);
});

test('of several the tersest is named', () => {
  const asked = answers([...ARTICLES, { title: 'Sauerkraut salt', subject: 'sauerkraut salt' }]);
  expect(asked('salt in sauerkraut')).toBe(3);
});
