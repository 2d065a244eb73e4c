import { numberOf, textOf, valueAt } from './test.ts';

/** Finds a pattern: given from outside, because only there a search can be cut off when it runs away. */
export type FindPattern = (pattern: string, text: string, all: boolean) => Found;
export type Found = { ok: true; matches: string[][] } | { ok: false; problem: string };

/** What a function cannot do with what it was given. */
export class CannotDo extends Error {}

export interface ExpressionFunction {
  /** How it is called. */
  call: string;
  /** What it gives, in a sentence. */
  says: string;
  least: number;
  most: number;
  work: (given: readonly unknown[], find: FindPattern) => unknown;
}

const LONGEST_LIST = 10_000;
/** No value may grow beyond this: an expression that doubles a text again and again is stopped here. */
export const LONGEST_TEXT = 1_000_000;
export const GROWS = 'its result grows beyond a million characters';

const text = (value: unknown) => textOf(value);
const figure = (value: unknown, what: string) => {
  const found = numberOf(value);
  if (found === null) throw new CannotDo(`${what} wants a figure, not ‘${textOf(value).slice(0, 60)}’`);
  return found;
};
const list = (value: unknown): unknown[] =>
  Array.isArray(value) ? value : value === null || value === undefined ? [] : [value];

function search(find: FindPattern, pattern: unknown, inside: unknown, all: boolean): string[][] {
  const found = find(text(pattern), text(inside), all);
  if (!found.ok) throw new CannotDo(found.problem);
  return found.matches;
}

/** Parts with a mark between, weighed before they are put together: what they make may be longer than any text can be. */
function joined(parts: readonly string[], mark: string): string {
  const length = parts.reduce((sum, part) => sum + part.length, mark.length * Math.max(0, parts.length - 1));
  if (length > LONGEST_TEXT) throw new CannotDo(GROWS);
  return parts.join(mark);
}

/** The address a redirect wraps: the longest parameter that is itself an address; the address itself when none is. */
function unwrap(address: string): string {
  let now = address.trim();
  for (let i = 0; i < 5; i++) {
    const query = /\?([^#]*)/.exec(now)?.[1];
    const inner = (query ?? '')
      .split('&')
      .map((pair) => pair.slice(pair.indexOf('=') + 1))
      .flatMap((value) => {
        try {
          return [decodeURIComponent(value.replace(/\+/g, ' '))];
        } catch {
          return [];
        }
      })
      .filter((value) => /^https?:\/\/[^\s/]+\.[^\s/]+/.test(value))
      .sort((a, b) => b.length - a.length)[0];
    if (inner === undefined) return now;
    now = inner;
  }
  return now;
}

function shiftDay(date: string, days: number): string {
  const match = /^(\d{4})-(\d{2})-(\d{2})(T.*)?$/.exec(date.trim());
  if (!match) throw new CannotDo(`shiftDay wants a day as 2026-11-25, not ‘${date.slice(0, 40)}’`);
  const ms = Date.UTC(Number(match[1]), Number(match[2]) - 1, Number(match[3]) + Math.trunc(days));
  const moved = new Date(ms);
  if (Number.isNaN(moved.getTime())) throw new CannotDo('shiftDay leads out of the calendar');
  return moved.toISOString().slice(0, 10) + (match[4] ?? '');
}

/** Every function expressions have, by name. */
/** Figures with what may stand between their digits. */
const FIGURES = /[-+]?\d+(?:[.,]\d+)*/;
/** A comma before the fraction, as it is written on much of the continent: '1.200,50', '12,5'. */
const COMMA = /^[-+]?(?:\d{1,3}(?:\.\d{3})+,\d+|\d+,(?:\d{1,2}|\d{4,}))$/;
/** The first figure of such: of '1,2,3' the first of three. */
const FIRST = /^[-+]?(?:\d{1,3}(?:,\d{3})+(?!\d)|\d+)(?:\.\d+)?/;

export const FUNCTIONS: Readonly<Record<string, ExpressionFunction>> = {
  unwrap: {
    call: 'unwrap(address)',
    says: 'the address inside a redirect or tracking address',
    least: 1,
    most: 1,
    work: ([a]) => unwrap(text(a)),
  },
  split: {
    call: 'split(text, mark)',
    says: 'a text split at a mark, spaces trimmed, empty parts left out',
    least: 2,
    most: 2,
    work: ([a, b]) =>
      text(a)
        .split(text(b) || '\n')
        .map((part) => part.trim())
        .filter((part) => part !== '')
        .slice(0, LONGEST_LIST),
  },
  join: {
    call: 'join(list, mark)',
    says: 'a list as one text with a mark between',
    least: 1,
    most: 2,
    work: ([a, b]) => {
      const parts = list(a).map(text);
      return joined(parts, b === undefined ? ', ' : text(b));
    },
  },
  before: {
    call: 'before(text, mark)',
    says: 'what stands before the first mark; the whole text when it has none',
    least: 2,
    most: 2,
    work: ([a, b]) => {
      const at = text(a).indexOf(text(b));
      return at < 0 ? text(a) : text(a).slice(0, at).trim();
    },
  },
  after: {
    call: 'after(text, mark)',
    says: 'what stands after the first mark; the whole text when it has none',
    least: 2,
    most: 2,
    work: ([a, b]) => {
      const at = text(a).indexOf(text(b));
      return at < 0
        ? text(a)
        : text(a)
            .slice(at + text(b).length)
            .trim();
    },
  },
  find: {
    call: 'find(text, pattern, group)',
    says: 'the first place a regular expression fits, or one of its groups; nothing when it fits nowhere',
    least: 2,
    most: 3,
    work: ([a, b, group], find) =>
      search(find, b, a, false)[0]?.[group === undefined ? 0 : figure(group, 'find')] ?? null,
  },
  findAll: {
    call: 'findAll(text, pattern)',
    says: 'every place a regular expression fits',
    least: 2,
    most: 2,
    work: ([a, b], find) =>
      search(find, b, a, true)
        .map((match) => match[0] ?? '')
        .slice(0, LONGEST_LIST),
  },
  replace: {
    call: 'replace(text, old, new)',
    says: 'the text with every old piece made new, taken letter by letter',
    least: 3,
    most: 3,
    work: ([a, b, c]) => (text(b) === '' ? text(a) : joined(text(a).split(text(b)), text(c))),
  },
  number: {
    call: 'number(text)',
    says: 'the first figure of a text, as 1,200.50 or 1.200,50; nothing when there is none',
    least: 1,
    most: 1,
    work: ([a]) => {
      const found = FIGURES.exec(text(a))?.[0] ?? '';
      return numberOf(COMMA.test(found) ? found.replace(/\./g, '').replace(',', '.') : FIRST.exec(found)?.[0]);
    },
  },
  shiftDay: {
    call: 'shiftDay(day, n)',
    says: 'a day so many days later, or earlier with a minus',
    least: 2,
    most: 2,
    work: ([a, b]) => shiftDay(text(a), figure(b, 'shiftDay')),
  },
  pick: {
    call: 'pick(record, name)',
    says: 'a part of a record by its name, or of a list by its number from 1',
    least: 2,
    most: 2,
    work: ([a, b]) => {
      if (Array.isArray(a)) return a[figure(b, 'pick') - 1] ?? null;
      return typeof a === 'object' && a !== null ? (valueAt(a as Record<string, unknown>, text(b)) ?? null) : null;
    },
  },
  length: {
    call: 'length(value)',
    says: 'how many members a list has, or letters a text',
    least: 1,
    most: 1,
    work: ([a]) => (Array.isArray(a) ? a.length : [...text(a)].length),
  },
  words: {
    call: 'words(text)',
    says: 'how many words a text has',
    least: 1,
    most: 1,
    work: ([a]) => (text(a).match(/[\p{L}\p{N}]+(?:['’.,-][\p{L}\p{N}]+)*/gu) ?? []).length,
  },
  upper: { call: 'upper(text)', says: 'the text in capitals', least: 1, most: 1, work: ([a]) => text(a).toUpperCase() },
  lower: {
    call: 'lower(text)',
    says: 'the text in small letters',
    least: 1,
    most: 1,
    work: ([a]) => text(a).toLowerCase(),
  },
  sentence: {
    call: 'sentence(text)',
    says: 'the text with a capital at its head',
    least: 1,
    most: 1,
    work: ([a]) =>
      text(a)
        .trim()
        .replace(/^\p{L}/u, (c) => c.toUpperCase()),
  },
  cut: {
    call: 'cut(text, n)',
    says: 'the first n letters of a text, ended at a word',
    least: 2,
    most: 2,
    work: ([a, b]) => cutAt(text(a), figure(b, 'cut')),
  },
  round: {
    call: 'round(figure, places)',
    says: 'a figure rounded to so many places',
    least: 1,
    most: 2,
    work: ([a, b]) =>
      Number(figure(a, 'round').toFixed(Math.min(10, Math.max(0, b === undefined ? 0 : figure(b, 'round'))))),
  },
  if: {
    call: 'if(test, then, otherwise)',
    says: 'one value or another',
    least: 3,
    most: 3,
    work: ([a, b, c]) => (isTrue(a) ? b : c),
  },
  orElse: {
    call: 'orElse(value, other)',
    says: 'the value, or the other when it is empty',
    least: 2,
    most: 2,
    work: ([a, b]) => (textOf(a).trim() === '' ? b : a),
  },
};

function cutAt(value: string, most: number): string {
  if (value.length <= most) return value;
  const head = value.slice(0, Math.max(0, most) + 1);
  const space = head.lastIndexOf(' ');
  return (space > most * 0.6 ? head.slice(0, space) : value.slice(0, Math.max(0, most))).trimEnd();
}

export function isTrue(value: unknown): boolean {
  if (typeof value === 'boolean') return value;
  if (typeof value === 'number') return value !== 0;
  return textOf(value).trim() !== '';
}
