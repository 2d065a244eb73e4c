import { setOf } from './lexicon.ts';
import type { Token } from './token.ts';

/** A number as it stands in a text, however it is written. */
export interface ReadNumber {
  /** What it may be: '1.220' is a thousand and more in one language, one and a bit in another. */
  values: number[];
  /** Its tokens, from and up to. */
  from: number;
  to: number;
  /** Digits a rounded number was rounded to, as a share of it; 0 for one that is exact. */
  inWords: boolean;
}

/** English numbers of one word. */
export const EN: Readonly<Record<string, number>> = {
  zero: 0,
  one: 1,
  two: 2,
  three: 3,
  four: 4,
  five: 5,
  six: 6,
  seven: 7,
  eight: 8,
  nine: 9,
  ten: 10,
  eleven: 11,
  twelve: 12,
  thirteen: 13,
  fourteen: 14,
  fifteen: 15,
  sixteen: 16,
  seventeen: 17,
  eighteen: 18,
  nineteen: 19,
  twenty: 20,
  thirty: 30,
  forty: 40,
  fifty: 50,
  sixty: 60,
  seventy: 70,
  eighty: 80,
  ninety: 90,
};
const EN_SCALES: Record<string, number> = {
  hundred: 100,
  thousand: 1e3,
  million: 1e6,
  millions: 1e6,
  billion: 1e9,
  billions: 1e9,
  trillion: 1e12,
  dozen: 12,
};
/** German numbers of one word, below a hundred. */
export const DE: Readonly<Record<string, number>> = {
  null: 0,
  eins: 1,
  ein: 1,
  eine: 1,
  zwei: 2,
  zwo: 2,
  drei: 3,
  vier: 4,
  fünf: 5,
  sechs: 6,
  sieben: 7,
  acht: 8,
  neun: 9,
  zehn: 10,
  elf: 11,
  zwölf: 12,
  dreizehn: 13,
  vierzehn: 14,
  fünfzehn: 15,
  sechzehn: 16,
  siebzehn: 17,
  achtzehn: 18,
  neunzehn: 19,
  zwanzig: 20,
  dreißig: 30,
  dreissig: 30,
  vierzig: 40,
  fünfzig: 50,
  sechzig: 60,
  siebzig: 70,
  achtzig: 80,
  neunzig: 90,
};
const DE_SCALES: Record<string, number> = {
  tausend: 1e3,
  million: 1e6,
  millionen: 1e6,
  mio: 1e6,
  milliarde: 1e9,
  milliarden: 1e9,
  mrd: 1e9,
  dutzend: 12,
  viertelmillion: 250_000,
};
/** Words that stand for one and are articles most of the time. */
const ARTICLES = setOf('one ein eine eins');
const SIGNS: Record<string, number> = {
  '½': 1 / 2,
  '⅓': 1 / 3,
  '⅔': 2 / 3,
  '¼': 1 / 4,
  '¾': 3 / 4,
  '⅕': 1 / 5,
  '⅛': 1 / 8,
};

/** What digits with their marks may mean. */
export function digitValues(text: string, language: string): number[] {
  const bare = text.replace(/[\u00a0\u202f']/g, '');
  if (/^\d+$/.test(bare)) return [Number(bare)];
  const plain = (decimal: string) =>
    Number.parseFloat(
      bare
        .split('')
        .filter((letter) => letter === decimal || /\d/.test(letter))
        .join('')
        .replace(decimal, '.'),
    );
  const marks = new Set(bare.replace(/\d/g, ''));
  if (marks.size === 2) return [plain(bare.lastIndexOf(',') > bare.lastIndexOf('.') ? ',' : '.')];
  const [mark] = [...marks];
  if (mark === ':') return [];
  const grouped = /^\d{1,3}(?:[.,]\d{3})+$/.test(bare);
  const own = language === 'de' ? ',' : '.';
  const whole = Number(bare.replace(/[.,]/g, ''));
  if (bare.split(mark!).length > 2) return grouped ? [whole] : [];
  if (!grouped) return [plain(mark!)];
  return mark === own ? [plain(mark), whole] : [whole];
}

/** A German number written as one word: 'zweihundertfünfundzwanzig', 'anderthalb'. */
export function germanNumber(word: string): number | null {
  const own = DE[word];
  if (own !== undefined) return own;
  if (word === 'anderthalb' || word === 'eineinhalb') return 1.5;
  if (word === 'hundert') return 100;
  if (word === 'tausend') return 1_000;
  const half = /^(.+)einhalb$/.exec(word);
  if (half) {
    const whole = germanNumber(half[1]!);
    return whole === null ? null : whole + 0.5;
  }
  for (const [scale, size] of [
    ['tausend', 1_000],
    ['hundert', 100],
  ] as const) {
    const at = word.indexOf(scale);
    if (at === -1) continue;
    const before = at === 0 ? 1 : germanNumber(word.slice(0, at));
    const rest = word.slice(at + scale.length).replace(/^und/, '');
    const after = rest === '' ? 0 : germanNumber(rest);
    return before === null || after === null ? null : before * size + after;
  }
  const and = /^(ein|zwei|drei|vier|fünf|sechs|sieben|acht|neun)und(.+)$/.exec(word);
  const tens = and ? DE[and[2]!] : undefined;
  return and && tens !== undefined && tens >= 20 ? DE[and[1]!]! + tens : null;
}

const GERMAN =
  /^(?:null|ein|zwei|zwo|drei|vier|fünf|sech|sieb|acht|neun|zehn|elf|zwölf|zwanzig|hundert|tausend|anderthalb)/;

/** One word as a number: 'twenty-five', 'siebenundzwanzig'. */
function wordValue(lower: string, language: string): number | null {
  if (language === 'de') return GERMAN.test(lower) ? germanNumber(lower) : null;
  const own = EN[lower];
  if (own !== undefined) return own;
  if (!lower.includes('-')) return null;
  const [tens, ones] = lower.split('-');
  const whole = ones === undefined ? undefined : EN[tens!];
  const rest = ones === undefined ? undefined : EN[ones];
  return whole !== undefined && rest !== undefined && whole >= 20 && rest < 10 ? whole + rest : null;
}

/** Whether a word may be a number, or the beginning of one. */
export const isNumberWord = (word: string, language: string): boolean =>
  wordValue(word, language) !== null || scaleOf(word, language) !== undefined;

const scaleOf = (lower: string, language: string) => (language === 'de' ? DE_SCALES : EN_SCALES)[lower];

/**
 * Numbers of a text in digits and in words, with what multiplies them ('1.4 million', 'two dozen') and a half behind
 * them ('2 and a half').
 */
export function numbersOf(tokens: readonly Token[], language: string): ReadNumber[] {
  const out: ReadNumber[] = [];
  for (let at = 0; at < tokens.length; at++) {
    const read = readAt(tokens, at, language);
    if (read === null) continue;
    out.push(read);
    at = read.to - 1;
  }
  return out;
}

function readAt(tokens: readonly Token[], at: number, language: string): ReadNumber | null {
  const token = tokens[at]!;
  if (token.kind === 'number') return digitsAt(tokens, at, language);
  const sign = SIGNS[token.text];
  if (sign !== undefined) return { values: [sign], from: at, to: at + 1, inWords: true };
  return token.kind === 'word' ? wordsAt(tokens, at, language) : null;
}

function digitsAt(tokens: readonly Token[], at: number, language: string): ReadNumber | null {
  let values = digitValues(tokens[at]!.text, language);
  if (values.length === 0) return null;
  let to = at + 1;
  // '5/8' and '1 1/2'.
  const below = tokens[to]?.text === '/' ? Number(tokens[to + 1]?.text) : Number.NaN;
  if (below > 0 && below <= 100 && tokens[at]!.end === tokens[to]!.start) {
    values = values.map((value) => value / below);
    to += 2;
  }
  for (
    let scale = scaleOf(tokens[to]?.lower ?? '', language);
    scale;
    scale = scaleOf(tokens[to]?.lower ?? '', language)
  ) {
    values = values.map((value) => value * scale!);
    to++;
  }
  if (SIGNS[tokens[to]?.text ?? ''] !== undefined) {
    const more = SIGNS[tokens[to]!.text]!;
    return { values: values.map((value) => value + more), from: at, to: to + 1, inWords: false };
  }
  const half = halfAfter(tokens, to);
  return half
    ? { values: values.map((value) => value + 0.5), from: at, to: half, inWords: false }
    : { values, from: at, to, inWords: false };
}

/** 'and a half' behind a number: the token after it, or null. */
function halfAfter(tokens: readonly Token[], at: number): number | null {
  const [and, a, half] = [tokens[at]?.lower, tokens[at + 1]?.lower, tokens[at + 2]?.lower];
  return and === 'and' && a === 'a' && half === 'half' ? at + 3 : null;
}

function wordsAt(tokens: readonly Token[], at: number, language: string): ReadNumber | null {
  let total = 0;
  let open: number | null = null;
  let to = at;
  const article = ARTICLES.has(tokens[at]!.lower) || tokens[at]!.lower === 'a';
  for (; to < tokens.length; to++) {
    const { lower, kind } = tokens[to]!;
    if (kind !== 'word') break;
    const value = wordValue(lower, language) ?? (to === at && lower === 'a' && language !== 'de' ? 1 : null);
    const scale = scaleOf(lower, language);
    if (scale !== undefined && (open !== null || to === at)) {
      if (scale >= 1_000) {
        total += (open ?? 1) * scale;
        open = 0;
      } else open = (open ?? 1) * scale;
    } else if (
      value !== null &&
      (open === null || (value < open && open % 10 === 0 && open >= 20) || (open === 0 && total > 0))
    )
      open = (open ?? 0) + value;
    else if (
      lower === 'and' &&
      open !== null &&
      open >= 100 &&
      wordValue(tokens[to + 1]?.lower ?? '', language) !== null
    )
      continue;
    else break;
  }
  if (open === null) return null;
  // 'a' and 'one' by themselves are articles.
  if (article && to === at + 1) {
    const half = language === 'de' ? null : halfAfter(tokens, to);
    return half && tokens[at]!.lower !== 'a' ? { values: [1.5], from: at, to: half, inWords: true } : null;
  }
  const half = halfAfter(tokens, to);
  return { values: [total + open + (half ? 0.5 : 0)], from: at, to: half ?? to, inWords: true };
}
