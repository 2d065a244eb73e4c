import type { Pair } from './pairs.ts';

/** Words of which one is put in the place of the one before it, by language; the last becomes the first. */
const ROUNDS: Record<string, Record<string, readonly string[]>> = {
  en: {
    date: [
      'Monday Tuesday Wednesday Thursday Friday Saturday Sunday',
      'January February March April May June July August September October November December',
      'spring summer autumn winter',
      'morning afternoon evening night',
    ],
    unit: [
      'minutes hours days weeks months years',
      'minute hour day week month year',
      'grams kilos tonnes',
      'millimetres centimetres metres kilometres',
      'millimetre centimetre metre kilometre',
      'millilitres litres',
      'euros pounds',
      '€ £',
    ],
    multiple: ['twice four', 'half third', 'doubled halved', 'double half'],
    order: [
      'more fewer',
      'before after',
      'above below',
      'longer shorter',
      'higher lower',
      'heavier lighter',
      'first last',
      'oldest youngest',
      'largest smallest',
      'most fewest',
      'inside outside',
      'with without',
      'open closed',
      'always never',
      'all none',
      'increases decreases',
      'rose fell',
      'cheaper dearer',
      'faster slower',
      'warm cold',
    ],
    number: [
      'two five nine',
      'three seven',
      'four twelve',
      'six ten',
      'eight twenty',
      'thirty eighty',
      'forty seventy',
    ],
  },
  de: {
    date: [
      'Montag Dienstag Mittwoch Donnerstag Freitag Samstag Sonntag',
      'Januar Februar März April Mai Juni Juli August September Oktober November Dezember',
      'Frühjahr Sommer Herbst Winter',
      'morgens nachmittags abends',
    ],
    unit: [
      'Minuten Stunden Tage Wochen Monate Jahre',
      'Tagen Wochen Monaten Jahren',
      'Gramm Kilo Tonnen',
      'Millimeter Zentimeter Meter Kilometer',
      'Milliliter Liter',
      'Euro Pfund',
    ],
    multiple: ['doppelt viermal', 'Hälfte Drittel', 'verdoppelt halbiert'],
    order: [
      'mehr weniger',
      'vor nach',
      'über unter',
      'länger kürzer',
      'höher niedriger',
      'schwerer leichter',
      'älteste jüngste',
      'größte kleinste',
      'meisten wenigsten',
      'mit ohne',
      'offen geschlossen',
      'immer nie',
      'alle keine',
      'stieg fiel',
      'billiger teurer',
      'schneller langsamer',
      'warm kalt',
    ],
    number: [
      'zwei fünf neun',
      'drei sieben',
      'vier zwölf',
      'sechs zehn',
      'acht zwanzig',
      'dreißig achtzig',
      'vierzig siebzig',
    ],
  },
};

const DENIED: Record<string, { behind: RegExp; not: string; gone: RegExp }> = {
  en: {
    behind: /\b(?:is|are|was|were|can|will|should|must|has been|have been)\b/,
    not: ' not',
    gone: / (?:not|never)\b/,
  },
  de: {
    behind: /\b(?:ist|sind|war|waren|kann|können|wird|werden|wurde|wurden)\b/,
    not: ' nicht',
    gone: / (?:nicht|nie)\b/,
  },
};

const LETTER = String.raw`[\p{L}\d]`;
const wordAt = (word: string) => new RegExp(`(?<!${LETTER})${word}(?!${LETTER})`, 'u');

/** Puts one word for another where it stands first in a sentence. */
function* turned(sentence: string, rounds: readonly string[]): Generator<string> {
  for (const round of rounds) {
    const words = round.split(' ');
    for (const [n, word] of words.entries()) {
      const found = wordAt(word).exec(sentence);
      if (!found) continue;
      yield `${sentence.slice(0, found.index)}${words[(n + 1) % words.length]}${sentence.slice(found.index + word.length)}`;
    }
  }
}

/** Tells three times as much of every figure of two digits and more, years and clock times left alone. */
function* counted(sentence: string): Generator<string> {
  for (const { 0: digits, index } of sentence.matchAll(/(?<![\d.,:/-])\d{1,3}(?![\d.,:/-]|(?:st|nd|rd|th)\b)/g))
    yield `${sentence.slice(0, index)}${Number(digits) * 3 + 1}${sentence.slice(index + digits.length)}`;
}

const DATED = new Set(Object.values(ROUNDS).flatMap(({ date }) => date!.flatMap((round) => round.split(' '))));

/** A name of the passage, and not of the sentence, for one of the sentence. */
function* named(passage: string, sentence: string): Generator<string> {
  const names = (text: string) =>
    [...new Set(text.match(/(?<=[\p{Ll},] )\p{Lu}\p{Ll}{2,}/gu))].filter((name) => !DATED.has(name.replace(/s$/, '')));
  const [own] = names(sentence).filter((name) => names(passage).includes(name));
  const [other] = names(passage).filter((name) => !sentence.includes(name));
  if (own && other) yield sentence.replace(own, other);
}

/**
 * Sentences that are altered by rule from those that rest on their passages: a figure, a unit, a date, a name, more for
 * less, a denial put in or left out. Now and then one of them happens to be so too.
 */
export function alteredByRule(pairs: readonly Pair[]): Pair[] {
  return pairs
    .filter(([, is]) => is === 'ok')
    .flatMap(([language, , , passage, sentence]) => {
      const rounds = ROUNDS[language]!;
      const { behind, not, gone } = DENIED[language]!;
      const out: Pair[] = [];
      const add = (kind: string, sentences: Iterable<string>) => {
        for (const one of sentences) if (one !== sentence) out.push([language, 'altered', kind, passage, one]);
      };
      for (const [kind, words] of Object.entries(rounds)) add(kind, turned(sentence, words));
      add('digit', counted(sentence));
      // In German every noun has a capital, and no name.
      if (language === 'en') add('name', named(passage, sentence));
      if (gone.test(sentence)) add('denied no more', [sentence.replace(gone, '')]);
      else add('denied', [sentence.replace(behind, (verb) => verb + not)]);
      return out;
    });
}
