import { mixed } from '../chance/mix.ts';
import { fold, wordsOfText } from '../sentence/sentence.ts';

/** How many least hashes a sketch has. */
const HASHES = 64;
/** Hashes of a band: texts that have one band the same are looked at. */
const BAND = 4;
/** From so many words on runs of words are compared, below letters. */
const LONG = 40;
/** Shorter texts say too little to be told for the same. */
const LEAST_WORDS = 4;
const RUN_OF_WORDS = 3;
const RUN_OF_LETTERS = 4;

/** What a text is known by to be compared with many others. */
export interface Sketch {
  hashes: Uint32Array;
  /** Numbers below 2^37; texts as alike as `NEAR` have one in common all but certainly. */
  bands: number[];
}

/** As alike as this, two texts are taken for the same told twice. */
export const NEAR = 0.8;

/**
 * A sketch of a text: of all its runs of three words the least under each of 64 hashes (MinHash, Broder 1997), in bands
 * that find what is like it among many. Short texts, as titles, are compared by runs of four letters and must have the
 * same figures; null for those that say too little.
 */
export function sketchOf(text: string, language = 'en'): Sketch | null {
  const words = wordsOfText(fold(text), language);
  if (words.length < LEAST_WORDS) return null;
  const long = words.length >= LONG;
  const hashes = new Uint32Array(HASHES).fill(0xffffffff);
  for (const run of long ? runsOfWords(words) : runsOfLetters(words.join(' '))) {
    const hash = hashOf(run);
    for (let k = 0; k < HASHES; k++) {
      const own = mixed(hash ^ Math.imul(k + 1, 0x9e3779b1)) >>> 0;
      if (own < hashes[k]!) hashes[k] = own;
    }
  }
  const apart = long ? 'long' : `short ${words.filter((word) => /\d/.test(word)).join(' ')}`;
  return { hashes, bands: bandsOf(hashes, hashOf(apart)) };
}

/** How alike two texts are, 0 to 1: the share of runs they have in common of all they have (Jaccard), as their sketches tell. */
export function sketchLikeness(a: Uint32Array, b: Uint32Array): number {
  let same = 0;
  for (let k = 0; k < HASHES; k++) if (a[k] === b[k]) same++;
  return same / HASHES;
}

function bandsOf(hashes: Uint32Array, apart: number): number[] {
  const bands: number[] = [];
  for (let at = 0; at < HASHES; at += BAND) {
    let band = apart;
    for (let k = at; k < at + BAND; k++) band = mixed(band ^ hashes[k]!) >>> 0;
    bands.push((at / BAND) * 0x1_0000_0000 + band);
  }
  return bands;
}

function* runsOfWords(words: readonly string[]): Generator<string> {
  for (let at = 0; at + RUN_OF_WORDS <= words.length; at++) yield words.slice(at, at + RUN_OF_WORDS).join(' ');
}

function* runsOfLetters(text: string): Generator<string> {
  for (let at = 0; at + RUN_OF_LETTERS <= text.length; at++) yield text.slice(at, at + RUN_OF_LETTERS);
}

export function hashOf(text: string): number {
  let hash = 0x811c9dc5;
  for (let i = 0; i < text.length; i++) hash = Math.imul(hash ^ text.charCodeAt(i), 0x01000193);
  return mixed(hash) >>> 0;
}
