import { describe, expect, it } from 'vitest';
import { EMPTY_ARTICLE } from './block.ts';
import { asTheBlogHas, bestCategory } from './category.ts';

const article = (title: string, text: string, heading = '', keyPhrase = '', language = 'en') => ({
  ...EMPTY_ARTICLE,
  title,
  keyPhrase,
  language,
  body: [
    ...(heading ? [{ type: 'heading' as const, id: 'h', level: 2 as const, text: heading }] : []),
    { type: 'paragraph' as const, id: 'p', content: [{ text }] },
  ],
});
const CATEGORIES = ['Strings', 'Bows and rosin', 'Care', 'Lessons'];

describe('the category an article fits best', () => {
  it('is told by its words, whatever form they have', () => {
    expect(bestCategory(CATEGORIES, article('How to change a string', 'A string breaks.', '', 'change a string'))).toBe(
      'Strings',
    );
    expect(
      bestCategory(
        CATEGORIES,
        article('Which rosin for which bow', 'Rosin the bow.', 'A soft rosin', 'rosin for a bow'),
      ),
    ).toBe('Bows and rosin');
    expect(
      bestCategory(
        ['Saiten', 'Bögen'],
        article('Neue Saite aufziehen', 'Die Saite hält.', '', 'Saite aufziehen', 'de'),
      ),
    ).toBe('Saiten');
  });
  it('is none where none fits: a word once in the text is not enough', () => {
    expect(bestCategory(CATEGORIES, article('Humid rooms', 'Take care of the wood in winter.'))).toBeNull();
    expect(bestCategory([], article('Strings', 'Strings'))).toBeNull();
    expect(bestCategory(['&', 'the'], article('The strings', 'Strings'))).toBeNull();
  });
  it('found whole goes before a longer one found in part', () => {
    expect(
      bestCategory(['Strings and bridges', 'Strings'], article('Gut strings', 'Strings of gut.', '', 'gut strings')),
    ).toBe('Strings');
  });
});

describe('names a post goes under', () => {
  it('are written as the blog writes them, each once', () => {
    expect(asTheBlogHas(['strings', 'STRINGS ', 'Rosin'], ['Strings'], 'made')).toEqual(['Strings', 'Rosin']);
  });
  it('that the blog does not have are left out where none is to be made, and kept where it does not tell', () => {
    expect(asTheBlogHas(['strings', 'Rosin'], ['Strings'], 'left out')).toEqual(['Strings']);
    expect(asTheBlogHas(['Rosin'], null, 'left out')).toEqual(['Rosin']);
  });
});
