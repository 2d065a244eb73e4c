import { contentStems, fold } from '../sentence/sentence.ts';
import { isHeading, type JunkReason, junkIn, unmarked, withoutEntities } from './junk.ts';
import { type Spelling, spelt } from './spelling.ts';

/** A phrase that stays, with where it came from. */
export interface CleanKeyword {
  phrase: string;
  /** Line of the paste, from 1. */
  line: number;
  /** Identity within a list: the folded phrase. */
  identity: string;
}

export type DropReason =
  | 'empty'
  | 'repeat'
  | 'near repeat'
  | 'left out before'
  | 'too long'
  | 'no letters'
  | JunkReason;

export interface DroppedKeyword {
  raw: string;
  line: number;
  reason: DropReason;
  /** For repeats: the phrase that stays. */
  of?: string;
}

export interface CleanedKeywords {
  kept: CleanKeyword[];
  /** The first of what was left out, in the order of the paste. */
  dropped: DroppedKeyword[];
  /** How many were left out for each reason, whether told one by one or not. */
  leftOut: Partial<Record<DropReason, number>>;
  /** How many kept phrases had their spaces, case or stray characters evened. */
  evened: number;
}

const MOST_CHARACTERS = 200;

export interface Cleaning {
  /** How words are spelt that are spelt in two ways; null leaves them, but two spellings are near repeats. */
  spelling?: Spelling | null;
  /** Letters a phrase may have. */
  longest?: number;
  /** How many of what is left out are told one by one. */
  told?: number;
  /** Takes what a person asks for as it is: only repeats are left out. */
  asIs?: boolean;
  /** Phrases the list holds and does not offer: a near repeat of one of them is none. */
  leftOut?: readonly string[];
}

/**
 * Reads a paste of phrases in any mixture of commas, semicolons, tabs and lines. Quotes around a phrase fall away,
 * control and direction characters too, spaces are evened; so do bullets, numbering and markup. What is no phrase anybody
 * searches for (the head of a column, error cells, numbers, addresses, sums, notes to self) is left out with the reason. Phrases that fold to the same (case, accents, spaces) are
 * repeats; those with the same words in any order or number form are near repeats. Runs in time linear in the input.
 * @param paste a text, or phrases already parted, which keep their commas
 * @param already phrases the list holds before
 */
export function cleanKeywords(
  paste: string | readonly string[],
  already: readonly string[] = [],
  { spelling = null, longest = MOST_CHARACTERS, told = Infinity, asIs = false, leftOut: before = [] }: Cleaning = {},
): CleanedKeywords {
  const kept: CleanKeyword[] = [];
  const dropped: DroppedKeyword[] = [];
  const leftOut: CleanedKeywords['leftOut'] = {};
  const known = new Known(already, before);
  let evened = 0;
  const parts = typeof paste === 'string' ? partsOf(paste) : paste.map((raw, at) => ({ raw, line: at + 1 }));
  const heads = parts[0] !== undefined && isHeading(evenPhrase(unmarked(parts[0].raw)));
  for (const { raw, line } of parts) {
    const typed = evenPhrase(asIs ? raw : unmarked(raw));
    const phrase = spelling === null ? typed : spelt(typed, spelling);
    if (phrase === '' && raw.trim() === '') continue;
    const against = noPhrase(phrase, longest) ?? (asIs ? null : junkIn(phrase, heads && line === 1));
    const found = against === null ? known.add(phrase, asIs) : { reason: against };
    if ('identity' in found) {
      if (phrase !== raw) evened++;
      kept.push({ phrase, line, identity: found.identity });
      continue;
    }
    leftOut[found.reason] = (leftOut[found.reason] ?? 0) + 1;
    if (dropped.length < told) dropped.push({ raw: raw.slice(0, longest), line, ...found });
  }
  return { kept, dropped, leftOut, evened };
}

/** Why something is no phrase at all; null where it is one. */
function noPhrase(phrase: string, longest: number): DropReason | null {
  if (phrase === '') return 'empty';
  if (!/[\p{L}\p{N}]/u.test(phrase)) return 'no letters';
  return phrase.length > longest ? 'too long' : null;
}

/** Phrases that are there already, by what makes two of them the same. */
class Known {
  private readonly byIdentity = new Map<string, string>();
  private readonly byStems = new Map<string, string>();
  private readonly leftBefore: ReadonlyMap<string, string>;

  constructor(already: readonly string[], leftBefore: readonly string[]) {
    for (const phrase of already) {
      const identity = identityOf(phrase);
      this.put(phrase, identity, stemsOf(phrase, identity));
    }
    this.leftBefore = new Map(leftBefore.map((phrase) => [identityOf(phrase), phrase]));
  }

  private put(phrase: string, identity: string, stems: string): void {
    this.byIdentity.set(identity, phrase);
    this.byStems.set(stems, phrase);
  }

  /**
   * Takes a phrase in.
   * @param asIs only the same phrase keeps it out
   * @returns its identity, or why it stays out and for the sake of which
   */
  add(phrase: string, asIs: boolean): { identity: string } | { reason: DropReason; of: string } {
    const identity = identityOf(phrase);
    const same = this.byIdentity.get(identity);
    if (same !== undefined) return { reason: 'repeat', of: same };
    const left = this.leftBefore.get(identity);
    if (left !== undefined && !asIs) return { reason: 'left out before', of: left };
    const stems = stemsOf(phrase, identity);
    const near = this.byStems.get(stems);
    if (near !== undefined && !asIs) return { reason: 'near repeat', of: near };
    this.put(phrase, identity, stems);
    return { identity };
  }
}

/** The identity of a phrase: what is equal after folding is the same subject. */
export function identityOf(phrase: string): string {
  return fold(phrase);
}

function partsOf(paste: string): { raw: string; line: number }[] {
  return withoutEntities(paste)
    .replace(/^\ufeff/, '')
    .split(/\r\n|\r|\n|\u2028|\u2029/)
    .flatMap((text, at) => text.split(/[,;\t]/).map((raw) => ({ raw, line: at + 1 })));
}

function evenPhrase(raw: string): string {
  return raw
    .normalize('NFC')
    .replace(/[\u0000-\u001f\u007f-\u009f\u200b-\u200f\u202a-\u202e\u2060-\u2069\ufeff\ufffd]/g, ' ')
    .replace(/\p{Cs}/gu, ' ')
    .replace(/\s+/g, ' ')
    .trim()
    .replace(/^["'“”„‘’«»]+|(?<!["'“”„‘’«»])["'“”„‘’«»]+$/g, '')
    .trim();
}

function stemsOf(phrase: string, identity: string): string {
  const stems = contentStems(spelt(phrase, 'British'));
  return stems.length === 0 ? `=${identity}` : [...new Set(stems)].sort().join(' ');
}
