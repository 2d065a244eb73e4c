import { expect, test } from 'vitest';
import { aspectsOf, wantOf } from './aspects.ts';

test.each([
  ['how to make kimchi', 'make'],
  ['sauerkraut recipe', 'make'],
  ['cleaning a stoneware crock', 'make'],
  ['sea salt or table salt', 'choose'],
  ['which crock for a family', 'choose'],
  ['gochugaru substitute', 'choose'],
  ['buy fermentation weights', 'find'],
  ['fermenting class near me', 'find'],
  ['kahm yeast', 'learn'],
  ['is blue garlic safe', 'learn'],
  ['how long does kimchi last', 'learn'],
])('who types ‘%s’ wants to %s', (phrase, want) => {
  expect(wantOf(phrase)).toBe(want);
});

test.each([
  ['Sauerkraut selber machen', 'make'],
  ['welches Salz oder Meersalz', 'choose'],
  ['Gärtopf kaufen', 'find'],
  ['Kahmhefe', 'learn'],
])('in German who types ‘%s’ wants to %s', (phrase, want) => {
  expect(wantOf(phrase, 'de')).toBe(want);
});

test('a phrase is parted into how it asks and what it asks about; a word counts for one way', () => {
  expect(aspectsOf('How long does kimchi last in the fridge')).toEqual({
    aspects: ['keeping', 'time'],
    rest: expect.stringMatching(/^\s*does kimchi\s+in the fridge$/),
  });
  expect(aspectsOf('kahm yeast')).toEqual({ aspects: [], rest: 'kahm yeast' });
});
