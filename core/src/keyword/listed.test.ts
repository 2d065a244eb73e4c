import { expect, test } from 'vitest';
import { lines } from '../testing/corpus.ts';
import { askedAs, aspectsOf, wantOf } from './aspects.ts';
import { cleanKeywords, identityOf } from './clean.ts';
import { groupPhrases, headOf } from './group.ts';
import { junkIn } from './junk.ts';
import { askedByName } from './saying.ts';
import { spelt } from './spelling.ts';
import { subjectSign } from './subject.ts';
import { asksQuestion, widened } from './widen.ts';

const ENGLISH = [
  'how to sharpen a kitchen knife',
  'best stone for sharpening knives',
  'sharpening stone price',
  'knife sharpening angle',
  'what angle to sharpen a knife',
  'knife sharpener vs whetstone',
  'whetstone or sharpener',
  'cheap whetstone',
  'buy whetstone 1000 grit',
  'whetstone near me',
  'whetstone review 2026',
  'can you sharpen a serrated knife',
  'why does my knife not stay sharp',
  'how long does a whetstone last',
  'how often to sharpen knives',
  'is a steel enough',
  'rain barrel 300 litres',
  'rain barrel size',
  'how big a rain barrel do i need',
  'rain barrel without a pump',
  'rain barrel for allotment',
  'colour of rainwater',
  'aluminium rain gutter',
  'grey water for tomatoes',
  'rainwater ph',
  'rainwater filter diy',
  'rainwater tank installation cost',
  'is rainwater safe to drink',
  'sauerkraut recipe',
  'sauerkraut recipe for beginners',
  'sauerkraut salt ratio',
  'salt for sauerkraut',
  'sauerkraut temperature',
  'sauerkraut mould',
  'sauerkraut in a jar',
  'knives',
  'knife',
  'a',
  '',
  'WWW.KNIVES.EXAMPLE',
  'https://knives.example/a',
  '12345',
  'knife!!!',
  'keyword',
  'volume',
  'oak oak oak',
  'the best of the best knives of 2026 for everyone who cooks at home every day of the week',
];
const GERMAN = [
  'messer schärfen anleitung',
  'wie schärft man ein messer',
  'bester schleifstein',
  'schleifstein kaufen',
  'schleifstein preis',
  'schleifstein körnung 1000',
  'messer schärfen winkel',
  'schleifstein oder wetzstahl',
  'warum werden messer stumpf',
  'wie oft messer schleifen',
  'regentonne 300 liter',
  'regentonne größe',
  'regentonne ohne pumpe',
  'regentonne test',
  'regenwasser filtern',
  'regenwasser zum trinken',
  'sauerkraut rezept',
  'sauerkraut selber machen',
  'sauerkraut salz menge',
  'sauerkraut temperatur',
  'was kostet eine zisterne',
  'welche regentonne für den balkon',
  'regentonne winterfest machen',
  'regentonne in der nähe',
  'kann man regenwasser trinken',
  'messer',
];

test.each([
  ['en', ENGLISH],
  ['de', GERMAN],
] as const)('what phrases ask for (%s)', async (language, phrases) => {
  const all = phrases.map((phrase) => {
    const { aspects, rest } = aspectsOf(phrase, language);
    return [
      phrase,
      `${aspects.join(', ')} of ‘${rest}’`,
      aspects.map((aspect) => askedAs(aspect)).join(', '),
      wantOf(phrase, language),
      `sign ${subjectSign(phrase, language)}`,
      `named ${askedByName(phrase, language).join(', ')}`,
      asksQuestion(phrase, language) ? 'a question' : 'none',
      `${spelt(phrase, 'American')}; ${spelt(phrase, 'British')}`,
      identityOf(phrase),
      `${junkIn(phrase, false)} ${junkIn(phrase, true)}`,
    ].join(' | ');
  });
  await expect(lines(all)).toMatchFileSnapshot(`listed/phrases-${language}.txt`);
});

test.each([
  ['en', ENGLISH],
  ['de', GERMAN],
] as const)('groups of phrases, and what is asked beside one (%s)', async (language, phrases) => {
  const rows = phrases
    .filter((phrase) => phrase.length > 3)
    .map((phrase, i) => ({ phrase, volume: i % 4 === 0 ? null : (i * 37) % 900 }));
  const all = (['closely', 'loosely'] as const).flatMap((closeness) =>
    groupPhrases(
      rows.map(({ phrase }, i) => ({
        phrase,
        results: i % 3 === 0 ? [] : [`https://a.example/${i % 7}`, `https://b.example/${i % 5}`],
      })),
      { closeness, language },
    ).map((group) => {
      const own = group.map((i) => rows[i]!);
      return `${closeness}: ${own[headOf(own, language)]!.phrase} of ${own.map(({ phrase }) => phrase).join(', ')}`;
    }),
  );
  const wide = ['whetstone', 'rain barrel', 'sauerkraut'].flatMap((seed) =>
    widened(seed, language).map((one) => JSON.stringify(one)),
  );
  await expect(lines([...all, ...wide])).toMatchFileSnapshot(`listed/groups-${language}.txt`);
});

test('a paste as it is cleaned', async () => {
  const paste = [
    'Keyword\tVolume\tDifficulty',
    ...ENGLISH.map((phrase, i) => `${i % 3 === 0 ? '• ' : ''}${phrase}\t${(i * 113) % 2_000}\t${(i * 7) % 100}`),
    ...ENGLISH.slice(0, 5),
    'Knife &amp; stone',
    '“quoted phrase”',
    'a;b;c',
  ].join('\n');
  await expect(`${JSON.stringify(cleanKeywords(paste), null, 1)}\n`).toMatchFileSnapshot('listed/cleaned.txt');
});
