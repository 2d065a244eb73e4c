import { figuresOf } from '../passage/figures.ts';

/** Languages whose words, units and forms are known here. */
const KNOWN = new Set(['en', 'de']);
/** Scripts in which names, clauses and units are told by their form. */
const LATIN = /\p{sc=Latin}/u;

const base = (language: string): string => language.split('-')[0]!.toLowerCase();

/** Digits of any script as plain ones: ٢٫٥ as 2.5. */
function plainDigits(text: string): string {
  return text
    .replace(/\p{Nd}/gu, (digit) => {
      const point = digit.codePointAt(0)!;
      // Ten digits of a script stand in a row and begin with its nought.
      let nought = point;
      while (nought > point - 9 && /\p{Nd}/u.test(String.fromCodePoint(nought - 1))) nought--;
      return point < 128 ? digit : String((point - nought) % 10);
    })
    .replace(/٫/g, '.')
    .replace(/٬/g, ',');
}

/**
 * Whether a text can be held against a source by its figures alone: where they are in two languages of which one is not
 * known, or in a script whose words are not told apart by their form, neither units nor names nor clauses can be.
 */
export function isOnlyByFigures(text: string, language: string, source: string): boolean {
  if (KNOWN.has(base(language)) && KNOWN.has(base(source))) return false;
  return base(language) !== base(source) || !LATIN.test(text);
}

/** A figure in the digits of any script. */
const WRITTEN = /\p{Nd}+(?:[.,٫٬\u00a0\u202f ]\p{Nd}{3})*(?:[.,٫]\p{Nd}+)?/gu;

/** Figures of a text that none of its sources has, as they stand in it; only the numbers count. */
export function bareFigures(text: string, sources: readonly string[]): string[] {
  const there = new Set(sources.flatMap((source) => figuresOf(plainDigits(source))));
  return (text.match(WRITTEN) ?? []).filter((words) => figuresOf(plainDigits(words)).some((one) => !there.has(one)));
}
