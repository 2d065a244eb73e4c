import { expect, test } from 'vitest';
import { lines } from '../testing/corpus.ts';
import { searchedWordsIn, searchTerms, searchWords } from './words.ts';

const TYPED = [
  'salt',
  'salt jar',
  '"salt jar"',
  '-salt',
  'jar -salt',
  'jar -"salt by weight"',
  '„auf Deutsch“',
  '«en deux»',
  'Crème brûlée',
  'a-b',
  "it's",
  '5%',
  '2.5',
  '日本',
  '"',
  '""',
  '-',
  '  ',
  'x'.repeat(80),
  'naïve café',
  'C++',
  "'; DROP",
  '%_',
  'straße',
  'STRASSE',
];

test('what is searched for, and what it is found by', async () => {
  const all = TYPED.map(
    (typed) => `${typed}: ${JSON.stringify(searchTerms(typed))} ${JSON.stringify(searchTerms(typed, 'title'))}`,
  );
  const words = [
    ['Salt by weight', 'Weigh the salt, never by spoon: 2.5 % is enough.'],
    ['', ''],
    ['Größe & Maß', 'It’s 5 litres; naïve café.'],
  ].map(
    ([title, text]) => `${searchWords(title!, text!)} | ${[...searchedWordsIn(searchWords(title!, text!))].length}`,
  );
  await expect(lines([...all, ...words])).toMatchFileSnapshot('listed/searches.txt');
});
