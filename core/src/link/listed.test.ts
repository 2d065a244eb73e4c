import { expect, test } from 'vitest';
import { lines, textsIn } from '../testing/corpus.ts';
import { leadOf, phrasesOf } from './phrases.ts';

test.each(['en', 'de'] as const)('the phrases an anchor may stand on (%s)', async (language) => {
  const all = textsIn(language, 45).flatMap((text) => [
    `= ${text.slice(0, 60)}`,
    ...phrasesOf(text, language).map(
      ({ at, end, stems, heads }) => `${text.slice(at, end)} | ${stems.join(' ')} | ${heads.join(' ')}`,
    ),
  ]);
  await expect(lines(all)).toMatchFileSnapshot(`listed/phrases-${language}.txt`);
});

test('what a title is about before it says of what', async () => {
  const titles = [
    'Best temperature for vegetables',
    'Salt for sauerkraut and for pickles',
    'How to store rainwater in a barrel',
    'Cleaning the chain of a bicycle',
    'The price of oak',
    'Knives',
    'For beginners',
    'Lids with an airlock',
    'Sharpening a knife on a stone',
  ].map((title) => `en ${title}: ${leadOf(title, 'en')}`);
  const german = [
    'Die beste Temperatur für Gemüse',
    'Salz für Sauerkraut',
    'Kartoffeln vorkeimen im Frühjahr',
    'Messer mit Griff aus Eiche',
    'Der Preis von Eiche',
    'Gurken',
    'Für Anfänger',
  ].map((title) => `de ${title}: ${leadOf(title, 'de')}`);
  await expect(lines([...titles, ...german])).toMatchFileSnapshot('listed/leads.txt');
});
