import { comparing } from './bounds.ts';
import { setOf } from './lexicon.ts';
import { type Moment, momentsOf, ordinalOf } from './moments.ts';
import { numbersOf, type ReadNumber } from './numbers.ts';
import { mayCount, partsOf } from './parts.ts';
import type { Meaning, Quantity } from './quantity.ts';
import type { Token } from './token.ts';
import { type Unit, unitAt } from './units.ts';

export interface Facts {
  quantities: Quantity[];
  /** Numbers that are part of one of these: the 3 and the 60 of '3 of 60'. */
  within: Quantity[];
  moments: Moment[];
}

const TO = setOf('to – — - bis and und or oder by x mal');

/** Figures, dates and times of a text. */
export function factsOf(tokens: readonly Token[], language: string): Facts {
  if (
    !tokens.some(
      ({ kind, lower }) =>
        kind === 'number' || /[½⅓⅔¼¾⅕⅛]/.test(lower) || (kind === 'word' && mayCount(lower, language)),
    )
  )
    return {
      quantities: [],
      within: placesOf(
        tokens.map(({ lower }) => lower),
        language,
      ),
      moments: momentsOf(tokens, language),
    };
  const spans = [...spansOf(tokens), ...singleTimes(tokens, language)];
  const moments = momentsOf(tokens, language).filter(({ from }) => !spans.some((one) => one.from === from));
  const taken = new Set(moments.flatMap(({ from, to }) => range(from, to)));
  const lowers = tokens.map(({ lower }) => lower);
  const quantities = partsOf(tokens, lowers, language, taken);
  for (const { from, to } of quantities) for (const at of range(from, to)) taken.add(at);
  const all = numbersOf(tokens, language).filter(
    ({ from, to }) => !moments.some((one) => one.from < to && from < one.to),
  );
  const numbers = taken.size === 0 ? all : all.filter(({ from, to }) => !range(from, to).some((at) => taken.has(at)));
  const within = all
    .filter((number) => !numbers.includes(number))
    .map((number) => measured(number, undefined, lowers, tokens));
  for (const [i, number] of numbers.entries()) quantities.push(measured(number, numbers[i + 1], lowers, tokens));
  // A year may be a number of things too.
  for (const { year, from, to, months } of moments)
    if (year !== undefined && !months)
      quantities.push({ means: [{ dimension: 'count', value: year, size: 1 }], says: 'exactly', bare: true, from, to });
  quantities.push(...spans);
  quantities.sort((a, b) => a.from - b.from);
  // A source may tell a time in any words: 'in an hour', 'an hour later'.
  within.push(...together(quantities), ...placesOf(lowers, language), ...singleTimes(tokens, language, true));
  return { quantities: numbered(gapsFilled(quantities, tokens), lowers), within, moments };
}

const HOURS = setOf('hours hour h std stunden stunde');
const MINUTES = setOf('minutes min minuten');

/** '2:31 hours' is no time of day. */
function spansOf(tokens: readonly Token[]): Quantity[] {
  return tokens.flatMap(({ text }, at) => {
    const [, big, small] = /^(\d{1,3}):([0-5]\d)$/.exec(text) ?? [];
    const behind = tokens[at + 1]?.lower ?? '';
    const size = HOURS.has(behind) ? 3_600 : MINUTES.has(behind) ? 60 : 0;
    if (big === undefined || size === 0) return [];
    const value = Number(big) * size + (Number(small) * size) / 60;
    return [{ means: [{ dimension: 'time', value, size }], says: 'exactly', bare: false, from: at, to: at + 2 }];
  });
}

const LASTING = setOf(
  'for after takes take took last lasts lasted dauert dauern dauerte dauerten nach seit binnen innerhalb hält halten hielt hielten',
);
const SINGLE: Record<string, RegExp> = { en: /^(?:an?|one)$/, de: /^eine?[nmr]?$/ };

/** 'For an hour', 'takes a day', but not 'twice a day'; 'dauert eine Stunde', 'ein Jahr lang'. */
function singleTimes(tokens: readonly Token[], language: string, anywhere = false): Quantity[] {
  const single = SINGLE[language] ?? SINGLE['en']!;
  const lowers = tokens.map(({ lower }) => lower);
  return lowers.flatMap((lower, at) => {
    if (!single.test(lower)) return [];
    // 'Er hält ein Jahr', 'hält er ein Jahr', 'ein Jahr lang'.
    const place = /^(?:er|sie|es|das)$/.test(lowers[at - 1] ?? '') ? at - 2 : at - 1;
    const lasts = LASTING.has(lowers[place] ?? '') || (language === 'de' && lowers[at + 2] === 'lang');
    if (!anywhere && !lasts) return [];
    const unit = unitAt(lowers, at + 1)?.units[0];
    // 'A month and a half' is read as such.
    const goesOn = lowers[at + 2] === 'and' && /^an?$/.test(lowers[at + 3] ?? '');
    if (unit?.dimension !== 'time' || goesOn) return [];
    const means = [{ dimension: unit.dimension, value: unit.size, size: unit.size }];
    return [{ means, says: comparing(lowers, at, tokens), bare: false, from: at, to: at + 2 }];
  });
}

/** '2 hours 31 minutes' is one time. */
function together(quantities: readonly Quantity[]): Quantity[] {
  return quantities.flatMap((one, i) => {
    const next = quantities[i + 1];
    const [a, b] = [one.means[0]!, next?.means[0]];
    const goesOn =
      next && b && a.dimension === 'time' && b.dimension === 'time' && next.from - one.to <= 1 && b.size < a.size;
    return goesOn ? [{ ...one, means: [{ ...a, value: a.value + b.value }], to: next.to }] : [];
  });
}

/** Behind a number that stands alone its unit is left out: 'a male needs 20 kilometres, a female 7'. */
function gapsFilled(quantities: readonly Quantity[], tokens: readonly Token[]): Quantity[] {
  let units: Pick<Meaning, 'dimension' | 'size'>[] = [];
  let read = 0;
  if (quantities.length < 2 || !quantities.some(({ bare }) => bare)) return [...quantities];
  return quantities.map((one) => {
    // What is measured in one sentence says nothing of the next.
    if (tokens.slice(read, one.from).some(({ text }) => /^[.!?]$/.test(text))) units = [];
    read = one.to;
    if (!one.bare) {
      const { dimension, size } = one.means[0]!;
      if (dimension !== 'count' && dimension !== 'times') units.push({ dimension, size });
      return one;
    }
    const more = units.flatMap(({ dimension, size }) =>
      one.means.map(({ value }) => ({ dimension, size, value: value * size })),
    );
    return more.length === 0 ? one : { ...one, means: [...one.means, ...more] };
  });
}

const DAYS: Record<string, number> = {
  day: 86_400,
  days: 86_400,
  tag: 86_400,
  week: 604_800,
  weeks: 604_800,
  woche: 604_800,
  month: 2_629_800,
  months: 2_629_800,
  monat: 2_629_800,
  year: 31_557_600,
};

/** 'Day three' is the third and comes after three days. */
function numbered(quantities: readonly Quantity[], lowers: readonly string[]): Quantity[] {
  return quantities.map((one) => {
    const size = one.bare ? DAYS[lowers[one.from - 1] ?? ''] : undefined;
    const [first] = one.means;
    return size === undefined || first === undefined
      ? one
      : { ...one, means: [...one.means, { dimension: 'time', value: first.value * size, size }] };
  });
}

/** What stands in a row, as its number: 'the third day' for 'day three'. */
function placesOf(lowers: readonly string[], language: string): Quantity[] {
  return lowers.flatMap((lower, at) => {
    const n = ordinalOf(lower, language);
    if (n === null) return [];
    const size = DAYS[lowers[at + 1] ?? ''];
    const means: Quantity['means'] = [{ dimension: 'count', value: n, size: 1 }];
    if (size !== undefined) means.push({ dimension: 'time', value: n * size, size });
    return [{ means, says: 'exactly', bare: true, from: at, to: at + 1 }];
  });
}

const range = (from: number, to: number) => Array.from({ length: to - from }, (_, i) => from + i);

/** A number with its unit; the first of a range has the unit of the second. */
function measured(
  number: ReadNumber,
  next: ReadNumber | undefined,
  lowers: readonly string[],
  tokens: readonly Token[],
): Quantity {
  const before = signBefore(lowers, number.from);
  // '£3.2m'.
  const scale = before ? SCALES[lowers[number.to] ?? ''] : undefined;
  if (scale) number = { ...number, values: number.values.map((value) => value * scale) };
  const own = before ?? unitAt(lowers, unitPlace(lowers, number.to));
  const ofNext =
    own === null && next && next.from === number.to + 1 && TO.has(lowers[number.to]!)
      ? (signBefore(lowers, next.from) ?? unitAt(lowers, unitPlace(lowers, next.to)))
      : null;
  const found = own ?? ofNext;
  // '41 summer days': what is measured may stand a word behind its number.
  const behind = found === null && tokens[number.to]?.kind === 'word' ? unitAt(lowers, number.to + 1) : null;
  const units: Unit[] = [
    ...(found?.units ?? []),
    // What goes on with another figure may be a number by itself: 'at pH 4 and 20 degrees'.
    ...(own === null ? [{ dimension: 'count' as const, size: 1 }] : []),
    ...(behind?.units ?? []),
  ];
  const to = own && !before ? unitPlace(lowers, number.to) + own.took : number.to;
  return {
    means: units.flatMap((unit) =>
      number.values.map((value) => ({
        dimension: unit.dimension,
        value: based(value, unit),
        size: unit.fahrenheit ? -1 : unit.size,
      })),
    ),
    says: comparing(lowers, number.from, tokens),
    bare: found === null,
    from: before ? number.from - 1 : number.from,
    to,
  };
}

const SCALES: Record<string, number> = { k: 1e3, m: 1e6, mn: 1e6, bn: 1e9 };

const based = (value: number, unit: Unit) => (unit.fahrenheit ? ((value - 32) * 5) / 9 : value * unit.size);

/** A unit stands behind its number, joined by a hyphen at times. */
const unitPlace = (lowers: readonly string[], at: number) => (lowers[at] === '-' ? at + 1 : at);

function signBefore(lowers: readonly string[], at: number) {
  return /^[€$£]$/.test(lowers[at - 1] ?? '') ? unitAt(lowers, at - 1) : null;
}
