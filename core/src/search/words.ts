import { fold } from '../sentence/sentence.ts';

/**
 * What is kept of a text to find it by, and how it is asked. Indexes of databases part words at spaces, leave short and common
 * ones out, and know nothing of scripts without spaces. So the words are ours: folded, marked as those of a text or of its
 * title, and runs of scripts without spaces as overlapping pairs of letters (Manning, Raghavan, Schütze, Introduction to
 * Information Retrieval, 2008, section 2.2.1).
 */

/** Stands before every word of a text, and before those of its title once more. */
const MARK = { text: 'x_', title: 't_' } as const;
export type SearchIn = keyof typeof MARK;

/** Scripts that put no spaces between words. */
const UNSPACED = /[\p{sc=Han}\p{sc=Hira}\p{sc=Kana}\p{sc=Thai}\p{sc=Laoo}\p{sc=Khmr}\p{sc=Mymr}]/u;
const PIECES =
  /[\p{sc=Han}\p{sc=Hira}\p{sc=Kana}\p{sc=Thai}\p{sc=Laoo}\p{sc=Khmr}\p{sc=Mymr}]+|(?:(?![\p{sc=Han}\p{sc=Hira}\p{sc=Kana}\p{sc=Thai}\p{sc=Laoo}\p{sc=Khmr}\p{sc=Mymr}])[\p{L}\p{N}])+/gu;
/** Letters of a word that count. */
const LONGEST = 60;
/** Words of a question that count; more tell nothing. */
const MOST_ASKED = 12;

/** A word of a text, or a run of letters that is parted no further. */
function piecesOf(text: string): string[] {
  // What a compatibility form stands for first; accents fall away, marks that belong to a letter of such a script do not.
  return fold(text).match(PIECES) ?? [];
}

const hex = (letter: string): string => letter.codePointAt(0)!.toString(16).padStart(5, '0');

/** Overlapping pairs of a run, and its last letter by itself: so that one letter is found wherever it stands. */
function pairs(run: string): string[] {
  const letters = [...run];
  return letters.map((letter, i) => (i + 1 < letters.length ? hex(letter) + hex(letters[i + 1]!) : hex(letter)));
}

function wordsFor(text: string, mark: string): string[] {
  return piecesOf(text).flatMap((piece) =>
    (UNSPACED.test(piece) ? pairs(piece) : [piece.slice(0, LONGEST)]).map((word) => mark + word),
  );
}

/** What an article is found by: the words of its title, marked as such, then all words in their order, with spaces around each. */
export function searchWords(title: string, text: string): string {
  return ` ${[...wordsFor(title, MARK.title), ...wordsFor(`${title}\n${text}`, MARK.text)].join(' ')} `;
}

/** The different words of {@link searchWords}. */
export function searchedWordsIn(searched: string): Set<string> {
  return new Set(searched.split(' ').filter((word) => word !== ''));
}

/** One thing a text must say, or must not. */
export interface SearchTerm {
  /** Marked words that stand there one after the other. */
  words: string[];
  /** Whether the only one of them may be the beginning of a word. */
  begins: boolean;
  not: boolean;
}

/**
 * What was typed as terms: every word must stand there or begin one that does, words in quotation marks in this order, words
 * after a minus must not. Nothing of what was typed is left but letters and digits.
 * @returns none where nothing was asked, or only what may not be there
 */
export function searchTerms(typed: string, within: SearchIn = 'text'): SearchTerm[] {
  const mark = MARK[within];
  const terms: SearchTerm[] = [];
  for (const [, minus = '', phrase, open, word] of typed.matchAll(
    /(?:(?<=^|\s)(-))?(?:"([^"]*)"|[„“”«»]([^„“”«»"]*)[„“”«»]|([^\s"„“”«»]+))/gu,
  )) {
    const not = minus === '-';
    const said = phrase ?? open;
    if (said !== undefined) {
      const words = piecesOf(said).flatMap((piece) => asked(piece, mark));
      if (words.length > 0) terms.push({ words, begins: false, not });
      continue;
    }
    for (const piece of piecesOf(word!)) {
      const words = asked(piece, mark);
      terms.push({ words, begins: words.length === 1 && isBeginning(piece), not });
    }
  }
  const some = terms.slice(0, MOST_ASKED);
  return some.some((term) => !term.not) ? some : [];
}

/** A short word begins too many others; so does one letter of a script of letters, not one of a script of words. */
const isBeginning = (piece: string): boolean => (UNSPACED.test(piece) ? [...piece].length === 1 : piece.length > 2);

/** A run is asked for without the letter that ends it by itself: it may go on in the text. */
function asked(piece: string, mark: string): string[] {
  if (!UNSPACED.test(piece)) return [mark + piece.slice(0, LONGEST)];
  const all = pairs(piece);
  return (all.length > 1 ? all.slice(0, -1) : all).map((word) => mark + word);
}
