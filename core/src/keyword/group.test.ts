import { expect, test } from 'vitest';
import { groupPhrases, headOf } from './group.ts';

const bare = (...phrases: string[]) => phrases.map((phrase) => ({ phrase, results: [] as string[] }));
const named = (phrases: { phrase: string }[], groups: number[][]) =>
  groups.map((group) => group.map((i) => phrases[i]!.phrase));

test('phrases that ask the same of the same thing stand together, the largest group first', () => {
  const phrases = bare(
    'kimchi shelf life',
    'how much salt for sauerkraut',
    'kahm yeast',
    'salt per kilo for sauerkraut',
    'sauerkraut salt ratio',
    'storing kimchi',
  );
  expect(named(phrases, groupPhrases(phrases))).toEqual([
    ['how much salt for sauerkraut', 'salt per kilo for sauerkraut', 'sauerkraut salt ratio'],
    ['kimchi shelf life', 'storing kimchi'],
    ['kahm yeast'],
  ]);
});

test('phrases without a word in common stand together when a search gives the same pages, the first most of all', () => {
  const phrases = [
    { phrase: 'kahm yeast', results: ['a', 'b', 'c'] },
    { phrase: 'white film on pickles', results: ['a', 'b', 'd'] },
    { phrase: 'soft pickles', results: ['e', 'f', 'b'] },
  ];
  expect(named(phrases, groupPhrases(phrases, { closeness: 'loosely' }))).toEqual([
    ['kahm yeast', 'white film on pickles'],
    ['soft pickles'],
  ]);
  expect(groupPhrases(bare('kahm yeast', 'white film on pickles'), { closeness: 'loosely' })).toHaveLength(2);
});

test('a page that is given for everything joins nothing', () => {
  const phrases = ['salt', 'lid', 'weight', 'crock', 'honey'].map((phrase) => ({
    phrase,
    results: [`of ${phrase}`, 'everything on fermenting'],
  }));
  expect(groupPhrases(phrases)).toHaveLength(5);
});

test('spelt a little otherwise they meet by their letters; loosely joins more than closely', () => {
  expect(groupPhrases(bare('sauerkrautrezept', 'sauerkrautrezepte alt', 'rote bete'))[0]).toEqual([0, 1]);
  const list = bare(
    'kimchi recipe',
    'easy kimchi recipe',
    'vegan kimchi recipe',
    'kimchi paste',
    'kimchi jar',
    'milk kefir',
    'kefir grains',
    'preserved lemons',
  );
  expect(groupPhrases(list, { closeness: 'loosely' }).length).toBeLessThan(groupPhrases(list).length);
});

test('every phrase is in one group, whatever the list holds', () => {
  const odd = bare('', 'the', 'مخلل', 'مخلل الملفوف', '🥬', 'the', '3 per cent', ...Array(50).fill('same phrase'));
  const groups = groupPhrases(odd);
  expect(groups.flat().toSorted((a, b) => a - b)).toEqual(odd.map((_, i) => i));
  expect(groups[0]).toHaveLength(50);
  expect(groupPhrases([])).toEqual([]);
});

test('a group is called by what is searched for most, else by what shares most of its words, else by the shorter', () => {
  const of = (...all: [string, number | null][]) => headOf(all.map(([phrase, volume]) => ({ phrase, volume })));
  expect(of(['white film', 590], ['kahm yeast', 880], ['scum', null])).toBe(1);
  expect(of(['salt per kilo of cabbage', null], ['sauerkraut salt', null], ['salt for sauerkraut today', null])).toBe(
    1,
  );
  expect(of(['kimchi at home', null], ['kimchi', null])).toBe(1);
});
