import { remembered } from '../sentence/remembered.ts';
import { comparing } from './bounds.ts';
import { setOf } from './lexicon.ts';
import { ordinalOf } from './moments.ts';
import { DE, EN, germanNumber, isNumberWord } from './numbers.ts';
import type { Quantity } from './quantity.ts';
import type { Token } from './token.ts';
import { type Dimension, unitAt } from './units.ts';

const FRACTIONS: Record<string, number> = {
  third: 1 / 3,
  thirds: 1 / 3,
  quarter: 1 / 4,
  quarters: 1 / 4,
  fifth: 1 / 5,
  fifths: 1 / 5,
  sixth: 1 / 6,
  sixths: 1 / 6,
  seventh: 1 / 7,
  eighth: 1 / 8,
  eighths: 1 / 8,
  ninth: 1 / 9,
  tenth: 1 / 10,
  tenths: 1 / 10,
  drittel: 1 / 3,
  viertel: 1 / 4,
  fünftel: 1 / 5,
  sechstel: 1 / 6,
  siebtel: 1 / 7,
  achtel: 1 / 8,
  neuntel: 1 / 9,
  zehntel: 1 / 10,
  // As they stand behind 'zu' and 'mit'.
  dritteln: 1 / 3,
  vierteln: 1 / 4,
  fünfteln: 1 / 5,
  achteln: 1 / 8,
  zehnteln: 1 / 10,
};
const TIMES: Record<string, number> = {
  twice: 2,
  double: 2,
  doubled: 2,
  doubles: 2,
  doubling: 2,
  thrice: 3,
  triple: 3,
  tripled: 3,
  treble: 3,
  trebled: 3,
  quadruple: 4,
  quadrupled: 4,
  twofold: 2,
  threefold: 3,
  fourfold: 4,
  fivefold: 5,
  tenfold: 10,
};
const ONE = setOf('one ein eine einem einer einen eines jeder jede jedes');
/** Some of the numbers that have a word. */
const only = (numbers: Readonly<Record<string, number>>, words: string): Record<string, number> =>
  Object.fromEntries(words.split(' ').map((word) => [word, numbers[word]!]));
const SMALL: Record<string, number> = {
  ...only(EN, 'one two three four five'),
  ...only(DE, 'ein eine zwei drei vier fünf'),
  a: 1,
  an: 1,
  einem: 1,
  1: 1,
  2: 2,
  3: 3,
  4: 4,
  5: 5,
};
const GERMAN_TIMES: [RegExp, number][] = [
  [/^(?:doppelt(?:e[nrms]?)?|verdoppel\w*)$/, 2],
  [/^(?:verdreifach\w*|dreifach\w*)$/, 3],
  [/^(?:vervierfach\w*|vierfach\w*)$/, 4],
  [/^(?:verfünffach\w*|fünffach\w*)$/, 5],
  [/^(?:zehnfach\w*|verzehnfach\w*)$/, 10],
  [/^(?:anderthalbmal|eineinhalbmal|anderthalbfach\w*)$/, 1.5],
];
const GERMAN_MAL = /^(.{3,30})mal(?:s|ig\w*)?$/;
const NUMBERS_EN = only(EN, 'two three four five six seven eight nine ten eleven twelve');
const NUMBERS_DE: Record<string, number> = {
  ...only(DE, 'zwei drei vier fünf sechs sieben acht neun zehn elf zwölf zwanzig'),
  hundert: 100,
};

/** Parts of a whole and multiples: 'two thirds', 'one in four', 'twice as', 'anderthalbmal'. */
export function partsOf(
  tokens: readonly Token[],
  lowers: readonly string[],
  language: string,
  taken: ReadonlySet<number>,
): Quantity[] {
  const out: Quantity[] = [];
  for (let at = 0; at < tokens.length; at++) {
    if (taken.has(at) || tokens[at]!.kind === 'sign' || !mayBePart(lowers[at]!, language)) continue;
    const found = timesAt(lowers, at, language) ?? oneInAt(lowers, at, language) ?? fractionAt(lowers, at, language);
    if (!found) continue;
    const [dimension, value, to] = found;
    const grows = GROWS.test(lowers[at]!);
    const ofIt = value < 1 && /^(?:of|der|des|aller|dieser)$/.test(lowers[to] ?? '');
    out.push({
      ...(grows ? { grows } : {}),
      ...(ofIt ? { ofIt } : {}),
      means: [{ dimension, value, size: 1 }],
      says: comparing(lowers, at, tokens),
      bare: false,
      from: at,
      to,
    });
    at = to - 1;
  }
  return out;
}

/** Whether a word may be a figure, or the beginning of one. */
export const mayCount = remembered((word, language) => mayBePart(word, language) || isNumberWord(word, language));

const mayBePart = remembered(
  (word, language) =>
    /^\d/.test(word) ||
    word in SMALL ||
    word in FRACTIONS ||
    (language === 'de'
      ? /mal(?:s|ig\w*)?$/.test(word) ||
        /^(?:ver|doppel|drei|vier|fünf|sechs|sieben|acht|neun|zehn|elf|zwölf|zwanzig|hundert|zwei|anderthalb|ein|halb|hälfte|jede)/.test(
          word,
        )
      : word in TIMES || word in NUMBERS_EN || /^hal/.test(word)),
);

const GROWS =
  /^(?:doubled|doubles|doubling|tripled|trebled|quadrupled|halved|verdoppelt|verdreifacht|vervierfacht|verfünffacht|halbiert)/;

type Part = [Dimension, number, number];

function timesAt(lowers: readonly string[], at: number, language: string): Part | null {
  const word = lowers[at]!;
  if (language === 'de') {
    const own = GERMAN_TIMES.find(([form]) => form.test(word))?.[1];
    if (own) return ['times', own, at + 1];
    const mal = GERMAN_MAL.exec(word)?.[1];
    const many = mal === undefined ? null : germanNumber(mal);
    if (many !== null && many > 1) return ['times', many, at + 1];
    const n = NUMBERS_DE[word] ?? small(word);
    if (n !== undefined && /^mal$/.test(lowers[at + 1] ?? '')) return ['times', n, at + 2];
    return null;
  }
  if (word === 'half' && lowers[at + 1] === 'as' && lowers[at + 3] === 'again') return ['times', 1.5, at + 4];
  if (word === 'one' && lowers[at + 1] === 'and' && lowers[at + 2] === 'a' && lowers[at + 3] === 'half')
    return lowers[at + 4] === 'times' ? ['times', 1.5, at + 5] : null;
  const own = TIMES[word];
  if (own) return ['times', own, at + 1];
  const n = NUMBERS_EN[word] ?? small(word);
  return n !== undefined && lowers[at + 1] === 'times' ? ['times', n, at + 2] : null;
}

const small = (word: string) => (/^\d{1,3}$/.test(word) ? Number(word) : undefined);

/** 'one in four', 'one plot in six', '2 of 3', 'jeder zehnte', 'eine von zwanzig'. */
function oneInAt(lowers: readonly string[], at: number, language: string): Part | null {
  const over = SMALL[lowers[at]!] ?? NUMBERS_EN[lowers[at]!];
  const every = language === 'de' && /^jede[rsnm]?$/.test(lowers[at]!);
  if (every) {
    const n = ordinalOf(lowers[at + 1] ?? '', 'de') ?? small(lowers[at + 1] ?? '');
    // 'Jeden zweiten Sonntag' says how often.
    return n && n > 2 && !/tag$|woche|monat|jahr/.test(lowers[at + 2] ?? '') ? ['share', 1 / n, at + 2] : null;
  }
  if (over === undefined || lowers[at] === 'a') return null;
  for (const gap of [1, 2]) {
    const between = lowers[at + gap];
    // 'Two cases out of three', but 'two men in four boats'.
    const ofTen = between === 'in' && /^(?:ten|hundred|10|100)$/.test(lowers[at + gap + 1] ?? '');
    if (gap === 2 && !ONE.has(lowers[at]!) && between !== 'out' && !ofTen) continue;
    if (between !== 'in' && between !== 'von' && between !== 'of' && between !== 'out') continue;
    const place = between === 'out' ? at + gap + 2 : at + gap + 1;
    const n =
      NUMBERS_EN[lowers[place] ?? ''] ??
      NUMBERS_DE[lowers[place] ?? ''] ??
      small(lowers[place] ?? '') ??
      TENS[lowers[place] ?? ''];
    // 'Eine Höhe von 41 Metern' and 'ein Bündel von 31 Briefen' are no parts.
    if (
      n !== undefined &&
      n > over &&
      ((between !== 'of' && (gap === 1 || between !== 'von')) || n <= 20) &&
      !(gap === 2 && unitAt(lowers, place + 1))
    )
      return ['share', over / n, place + 1];
  }
  return null;
}

const TENS: Record<string, number> = { twenty: 20, fifty: 50, hundred: 100, zwanzig: 20, fünfzig: 50, hundert: 100 };

const PARTS_OF_HOURS: Record<string, number> = { viertelstunde: 900, dreiviertelstunde: 2_700 };

function fractionAt(lowers: readonly string[], at: number, language: string): Part | null {
  const word = lowers[at]!;
  const hours = PARTS_OF_HOURS[word];
  if (hours) return ['time', hours, at + 1];
  if (word === 'half') {
    if (lowers[at - 1] === 'a' && lowers[at - 2] === 'and') return null;
    // 'Half a litre', 'half-litre' and 'a half litre'.
    const own = inUnit(lowers, 0.5, /^(?:an?|-)$/.test(lowers[at + 1] ?? '') ? at + 2 : at + 1, true);
    if (own) return own;
    return ['share', 0.5, at + 1];
  }
  if (word === 'halves' || word === 'halved' || /^(?:hälfte|halbiert\w*|halb|halbe[rnms]?)$/.test(word)) {
    return inUnit(lowers, 0.5, at + 1, true) ?? ['share', 0.5, at + 1];
  }
  const more = language === 'de' ? null : andHalf(lowers, at);
  if (more) return more;
  const many = SMALL[word];
  // 'A third time' is the one after the second.
  if (word === 'a' && ONE_MORE.has(lowers[at + 2] ?? '')) return null;
  const named = many === undefined ? undefined : FRACTIONS[lowers[at + 1] ?? ''];
  if (many !== undefined && named !== undefined) return ofUnit(lowers, many * named, at + 2, language);
  const alone = FRACTIONS[word];
  // 'The third' is the one after the second, 'a third' and 'Drittel' are parts.
  return alone !== undefined && (language === 'de' || /s$/.test(word) || /^(?:quarter|tenth)$/.test(word))
    ? ofUnit(lowers, alone, at + 1, language)
    : null;
}

const ONE_MORE = setOf(
  'time day week month year filling jar batch person way thing round kind sort step course visit attempt child place part case',
);

/** 'A litre and a half'. */
function andHalf(lowers: readonly string[], at: number): Part | null {
  if (!/^(?:an?|one)$/.test(lowers[at]!) || lowers[at + 2] !== 'and' || lowers[at + 3] !== 'a') return null;
  const unit = lowers[at + 4] === 'half' ? inUnit(lowers, 1.5, at + 1, true) : null;
  return unit && [unit[0], unit[1], at + 5];
}

/** 'Three quarters of an hour' is a time, 'a quarter of a kilo' and 'ein halber Liter' are so much of something. */
function ofUnit(lowers: readonly string[], value: number, to: number, language: string): Part {
  const of =
    language === 'de' ? /^eine[rs]$/.test(lowers[to] ?? '') : lowers[to] === 'of' && /^an?$/.test(lowers[to + 1] ?? '');
  const behind = of ? to + (language === 'de' ? 1 : 2) : to;
  return inUnit(lowers, value, behind, behind > to || language === 'de') ?? ['share', value, to];
}

function inUnit(lowers: readonly string[], value: number, at: number, may: boolean): Part | null {
  const unit = may ? unitAt(lowers, at)?.units[0] : undefined;
  return unit && !unit.fahrenheit && unit.dimension !== 'share' ? [unit.dimension, value * unit.size, at + 1] : null;
}
