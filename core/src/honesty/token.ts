import { verbOf } from '../sentence/irregular.ts';
import { remembered } from '../sentence/remembered.ts';
import { fold, stem } from '../sentence/sentence.ts';
import { EMPTY, NEGATORS } from './lexicon.ts';
import { isUnit } from './units.ts';

/** A word, a number or a sign of a text, with where it stands. */
export interface Token {
  text: string;
  lower: string;
  /** What a word is known by: accents and ending off; of what is no word, nothing. */
  stem: string;
  /** Place in the text, in letters. */
  start: number;
  end: number;
  kind: 'word' | 'number' | 'sign';
  /** Written with a capital. */
  capital: boolean;
  /** Says what a sentence is about: no word that only joins, points or denies. */
  content: boolean;
  /** A word for a unit of measure. */
  unit: boolean;
}

/** Numbers with their marks, words with hyphens and apostrophes inside, signs one by one. */
const PART =
  /\d+(?:[.,:\u00a0\u202f']\d+)*|[\p{L}\p{M}]+(?:[-’'][\p{L}\p{M}]+)*|°\s?[CF]\b|[½⅓⅔¼¾⅕⅛%‰€$£°–—;:.,!?()[\]“”„"‚‘»«…/&+-]/gu;

/** Texts longer than this are looked at up to here. */
const LONGEST = 100_000;

/** Tokens of a text in order; linear in its length. */
export function tokensOf(text: string, language: string): Token[] {
  const empty = EMPTY[language] ?? EMPTY['en']!;
  const { words: denying } = NEGATORS[language] ?? NEGATORS['en']!;
  return parted(text).map(({ found, index }, at) => {
    const first = found.charAt(0);
    const kind = /\d/.test(first) ? 'number' : /\p{L}/u.test(first) ? 'word' : 'sign';
    const lower = found.toLowerCase();
    return {
      text: found,
      lower,
      stem: kind === 'word' ? stemOf(lower, language) : '',
      start: index,
      end: index + found.length,
      kind,
      capital: kind === 'word' && first !== first.toLowerCase(),
      content: kind === 'word' && (found.length > 2 ? !empty.has(lower) && !denying.has(lower) : isLabel(found, at)),
      unit: kind !== 'number' && isUnit(lower),
    };
  });
}

/** A number or a half joined to its unit by a hyphen: 'half-litre', 'zehn-Liter'. */
const MEASURED = /^([\p{L}]+)-([\p{L}]+)(?:-.*)?$/u;

/** Its tokens as they are written; what is measured in one word is a number, a hyphen and a unit. */
function parted(text: string): { found: string; index: number }[] {
  return [...text.slice(0, LONGEST).matchAll(PART)].flatMap(({ 0: found, index }) => {
    const [, part] = found.includes('-') ? (OF_A_TIME.exec(found) ?? []) : [];
    if (part !== undefined)
      return [
        { found: part, index },
        { found: found.slice(part.length + 1), index: index + part.length + 1 },
      ];
    const [, number, unit] = found.includes('-') ? (MEASURED.exec(found) ?? []) : [];
    if (number === undefined || !isUnit(unit!.toLowerCase()) || !MAY_MEASURE.test(number)) return [{ found, index }];
    const at = index + number.length;
    const rest = found.slice(number.length + 1 + unit!.length).replace(/^-/, '');
    return [
      { found: number, index },
      { found: '-', index: at },
      { found: unit!, index: at + 1 },
      ...(rest === '' ? [] : [{ found: rest, index: index + found.length - rest.length }]),
    ];
  });
}

/** 'Mid-March', 'late-summer'. */
const OF_A_TIME = /^(mid|early|late)-\p{L}+$/iu;

const MAY_MEASURE =
  /^(?:half|quarter|one|two|three|four|five|six|seven|eight|nine|ten|eleven|twelve|fifteen|twenty|thirty|forty|fifty|sixty|hundred|halb|viertel|ein|zwei|drei|vier|fünf|sechs|sieben|acht|neun|zehn|elf|zwölf|fünfzehn|zwanzig|dreißig|fünfzig|hundert)$/i;

/** 'Route B': a letter that tells one from another. */
const isLabel = (word: string, at: number) => at > 0 && /^[A-HJ-Z]$/.test(word);

/** A word without accents and a genitive's ending. */
export const bareOf = remembered((word) => fold(word).replace(/[’']s?$/, ''));

/** 'Dyed', 'dye', 'oiled', 'oil': endings a stemmer leaves on short words. */
function shortForm(stemmed: string): string {
  if (stemmed.length > 6) return stemmed;
  const end = /[^e]ed$/.test(stemmed) ? 2 : /[^e]e$/.test(stemmed) ? 1 : 0;
  const left = stemmed.slice(0, stemmed.length - end);
  return left.length >= 2 && /[aeiouy]/.test(left) ? left : stemmed;
}

export const stemOf = remembered((word, language) => {
  const own = fold(word).replace(/[’']s$/, '');
  // 'Dachse' is cut to 'dachs' and that to 'dach': one word, whatever its ending.
  return language === 'en' ? shortForm(stem(verbOf(own), language)) : stem(stem(own, language), language);
});
