import { unitAt } from '../honesty/units.ts';
import { stem } from '../sentence/sentence.ts';
import type { Clause } from './clauses.ts';
import { type SeriesWords, wordsFor } from './words.ts';

/** What a label is one of: only labels of one sort make a series. */
export type LabelSort = 'year' | 'month' | 'weekday' | 'season' | 'ordinal' | `numbered ${string}`;

/** In a clause, something measured or the moment it was measured at. */
export type Event =
  | { kind: 'label'; sort: LabelSort; text: string; from: number; to: number }
  | {
      kind: 'value';
      value: number;
      /** As it is written, with its unit. */
      text: string;
      /** The unit as it is written, or what is counted; empty where neither is said. */
      unit: string;
      /** By what two figures can be told to be of one sort: a dimension, or the stem of what is counted. */
      sort: string;
      from: number;
      to: number;
    };
export type Value = Event & { kind: 'value' };

/** Units that are no measures of trade and common all the same. */
const MORE_UNITS: ReadonlySet<string> = new Set([
  'rpm',
  'hz',
  'khz',
  'n',
  'kn',
  'db',
  'lux',
  'ppm',
  'ph',
  'u/min',
  'nm',
]);
/** The units before the figure they belong to. */
const BEFORE: ReadonlySet<string> = new Set(['€', '$', '£']);

/** A figure as a number: '1,400' and '1.400' are grouped, '2,5' and '0.635' are not. */
export function numberIn(text: string): number {
  const bare = text.replace(/[\u00a0\u202f' ]/g, '');
  if (/^[1-9]\d{0,2}(?:[.,]\d{3})+$/.test(bare)) return Number(bare.replace(/[.,]/g, ''));
  return Number(bare.replace(',', '.'));
}

const isYear = (text: string): boolean => /^(?:1[6-9]|20)\d\d$/.test(text);

/** What is measured and labelled in a clause, in order; null where it has a span of figures, which is no one value. */
export function eventsIn(clause: Clause, language: string): Event[] | null {
  const words = wordsFor(language);
  const lowers = clause.map(({ lower }) => lower);
  const out: Event[] = [];
  for (let at = 0; at < clause.length; at++) {
    const label = labelAt(clause, at, words);
    const event =
      label ??
      (clause[at]!.kind === 'number' && !words.named.has(clause[at - 1]?.lower ?? '')
        ? valueAt(clause, lowers, at, language)
        : null);
    if (!event) continue;
    if (event.kind === 'value' && isSpan(clause, event.to, words)) return null;
    out.push(event);
    at = event.to - 1;
  }
  return out;
}

/** '3 to 5 days', '3–5 days'. */
const isSpan = (clause: Clause, at: number, { between }: SeriesWords): boolean =>
  clause[at + 1]?.kind === 'number' &&
  clause[at] !== undefined &&
  (between.has(clause[at].lower) || /^[-–—]$/.test(clause[at].text));

function labelAt(clause: Clause, at: number, words: SeriesWords): (Event & { kind: 'label' }) | null {
  const { lower, text, kind } = clause[at]!;
  const label = (sort: LabelSort, to: number, says = text) => ({
    kind: 'label' as const,
    sort,
    text: says,
    from: at,
    to,
  });
  if (kind === 'number') {
    // '3 May': a date, of which the month is the label.
    const next = clause[at + 1]?.lower ?? '';
    if (words.months.has(next)) return label('month', at + 2, `${text} ${clause[at + 1]!.text}`);
    return isYear(text) && !startsUnit(clause, at + 1, words) ? label('year', at + 1) : null;
  }
  if (kind !== 'word') return null;
  // 'May' and 'March' are words as well.
  if (words.months.has(lower) && clause[at]!.capital) return label('month', at + 1);
  if (words.weekdays.has(lower)) return label('weekday', at + 1);
  if (words.seasons.has(lower)) return label('season', at + 1);
  const number = clause[at + 1]?.kind === 'number' ? clause[at + 1]!.text : null;
  if (words.numbered.has(lower) && number !== null && isYear(number)) return label('year', at + 2, number);
  if (words.numbered.has(lower) && number !== null) return label(`numbered ${lower}`, at + 2, `${text} ${number}`);
  if (words.ordinals.has(lower)) return label('ordinal', at + 1, text);
  return null;
}

/** Whether a figure before is of something: it is no year then. */
function startsUnit(clause: Clause, at: number, words: SeriesWords): boolean {
  const next = clause[at];
  if (!next || next.kind === 'number') return false;
  return (
    unitAt(
      clause.map(({ lower }) => lower),
      at,
    ) !== null && !words.empty.has(next.lower)
  );
}

function valueAt(clause: Clause, lowers: readonly string[], at: number, language: string): Value {
  const value = numberIn(clause[at]!.text);
  const written = (to: number) =>
    clause
      .slice(at, to)
      .map(({ text }) => text)
      .join(' ');
  const before = clause[at - 1]?.text ?? '';
  if (BEFORE.has(before))
    return {
      kind: 'value',
      value,
      text: `${before}${clause[at]!.text}`,
      unit: before,
      sort: before,
      from: at - 1,
      to: at + 1,
    };
  const found = unitAt(lowers, at + 1);
  const next = clause[at + 1];
  if (found && next) {
    const to = at + 1 + found.took;
    const unit = written(to).slice(clause[at]!.text.length).trim();
    const { dimension, size } = found.units[0]!;
    return { kind: 'value', value, text: written(to), unit, sort: `${dimension} ${size}`, from: at, to };
  }
  if (next && MORE_UNITS.has(next.lower))
    return { kind: 'value', value, text: written(at + 2), unit: next.text, sort: next.lower, from: at, to: at + 2 };
  if (next && isCounted(next, language)) {
    const counted = stem(next.lower, language);
    return {
      kind: 'value',
      value,
      text: written(at + 2),
      unit: next.text,
      sort: `count ${counted}`,
      from: at,
      to: at + 2,
    };
  }
  return { kind: 'value', value, text: clause[at]!.text, unit: '', sort: '', from: at, to: at + 1 };
}

const IRREGULAR: ReadonlySet<string> = new Set([
  'people',
  'men',
  'women',
  'children',
  'sheep',
  'geese',
  'fish',
  'mice',
]);

/** Whether a word names what is counted: in English a plural, in German a noun. */
function isCounted({ kind, lower, capital, content }: Clause[number], language: string): boolean {
  if (kind !== 'word' || !content) return false;
  return language === 'de' ? capital : IRREGULAR.has(lower) || (/[^s]s$/.test(lower) && lower.length > 3);
}
