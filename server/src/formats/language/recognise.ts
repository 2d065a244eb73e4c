import { eld } from 'eld/medium';

/** Languages written with spaces need so many words to be told, the others so many letters. */
const LEAST_WORDS = 4;
const LEAST_LETTERS = 8;
/** Letters that are looked at: more tell nothing new. */
const MOST_READ = 20_000;
const UNSPACED = /[\p{sc=Han}\p{sc=Hira}\p{sc=Kana}\p{sc=Thai}\p{sc=Laoo}\p{sc=Khmr}\p{sc=Mymr}]/gu;

/** Names of languages that the detector has and we write otherwise. */
const OURS: Readonly<Record<string, string>> = { no: 'nb', tl: 'fil' };

/**
 * Languages that are written so alike that a text of one may pass for the other: telling them apart is not worth a fault.
 */
const ALIKE: readonly ReadonlySet<string>[] = [
  new Set(['nb', 'nn', 'no', 'da']),
  new Set(['hr', 'sr', 'bs']),
  new Set(['id', 'ms']),
  new Set(['gl', 'pt']),
];

/**
 * The language of a text, by how often groups of letters stand in it (Cavnar and Trenkle, N-Gram-Based Text Categorization,
 * 1994); of sixty. Not for the processes that read what others sent: its tables are too large for the memory those may have.
 * @returns its tag; null where the text is too short or like none of them
 */
export function languageOf(text: string): string | null {
  const read = text.slice(0, MOST_READ);
  const words = read.match(/[\p{L}\p{M}]+/gu) ?? [];
  if (words.length < LEAST_WORDS && (read.match(UNSPACED)?.length ?? 0) < LEAST_LETTERS) return null;
  const found = eld.detect(read);
  if (!found.isReliable()) return null;
  return OURS[found.language] ?? found.language;
}

/** A text of fewer words may be all names and figures. */
const LEAST_JUDGED = 15;

/** Which other language a text is in than it should be, as far as that can be told; null where it is as it should be. */
export function isInOther(text: string, wanted: string): string | null {
  const found = text.split(/\s+/).length < LEAST_JUDGED && text.match(UNSPACED) === null ? null : languageOf(text);
  const base = wanted.split('-', 1)[0]!;
  if (found === null || found === base) return null;
  return ALIKE.some((some) => some.has(found) && some.has(base)) ? null : found;
}
