import { visibleText } from '../passage/visible.ts';
import { sentencesOf } from '../sentence/sentence.ts';
import type { Cue } from './cue.ts';
import { sentenceEnds } from './sentenceEnds.ts';
import { pausesBefore, type TimedWord, timedWords, timesOf } from './wordTimes.ts';

/** A sentence as it was said, with when. */
export interface Spoken {
  start: number;
  end: number;
  text: string;
}

export interface Cleaned {
  spoken: Spoken[];
  /** What was taken out, by what it was. */
  left: { fillers: number; repeats: number; sounds: number };
}

/** Stands where a filler began a sentence: what follows begins it now. */
const BEGINS = '\u0001';

const FILLERS: Record<string, RegExp> = {
  en: /(?<![\p{L}'’])(?:u+h+m*|u+m+|e+r+m+|er|hm+|mhm|uh-huh|you know,|i mean,|sort of like,)(?![\p{L}'’])[,.…]?\s*/giu,
  de: /(?<![\p{L}'’])(?:ä+h+m*|ö+h+m*|hm+|tja,|na ja,|sozusagen,)(?![\p{L}'’])[,.…]?\s*/giu,
};

/** A pause after which a new sentence begins where captions have no punctuation, in seconds. */
const PAUSE = 0.9;

/**
 * What was said, sentence by sentence: markup, speakers' names, sounds in brackets and fillers out; lines that roll up
 * through several captions said once; captions joined to sentences. Captions without punctuation, as machines write
 * them, are parted at pauses and begin with a capital.
 */
export function spokenOf(cues: readonly Cue[], language = 'en'): Cleaned {
  const left = { fillers: 0, repeats: 0, sounds: 0 };
  const pieces: Piece[] = [];
  let shown: string[] = [];
  for (const cue of cues) {
    const lines = cue.lines.map((line) => bareLine(line, left)).filter((line) => line !== '');
    const fresh = withoutRolled(lines, shown);
    left.repeats += lines.length - fresh.length;
    if (lines.length > 0) shown = lines;
    const text = withoutFillers(fresh.join(' '), language, left);
    if (text !== '') pieces.push({ start: cue.start, end: Math.max(cue.end, cue.start), text });
  }
  const said = withoutOverlap(pieces, left);
  return { spoken: punctuated(said) ? bySentences(said, language) : byPauses(said, language, timedWords(cues)), left };
}

interface Piece {
  start: number;
  end: number;
  text: string;
}

/** Tags, times inside lines and entities out; what is only a sound is nothing. */
function bareLine(line: string, left: Cleaned['left']): string {
  const text = visibleText(line)
    .replace(/<[^<>]*>/g, '')
    .replace(/\{(?:\\[^{}]*|\/?[bisu])\}/g, '')
    .replace(/&(amp|lt|gt|nbsp|lrm|rlm|quot|#39);/g, (_, name: string) => ENTITIES[name] ?? '')
    .replace(/\s+/g, ' ')
    .trim();
  const heard = text
    .replace(/[([][^)\]]{0,60}[)\]]/g, () => {
      left.sounds++;
      return ' ';
    })
    .replace(/[♪♫#]+[^♪♫]*[♪♫]*/g, (found) => {
      if (!/[♪♫]/.test(found)) return found;
      left.sounds++;
      return ' ';
    });
  return heard
    .replace(/^\s*(?:-|–|>>+)\s*/, '')
    .replace(/^(?:[A-ZÄÖÜ][A-ZÄÖÜ .]{1,20}):\s*/, '')
    .replace(/\s+/g, ' ')
    .trim();
}

const ENTITIES: Record<string, string> = { amp: '&', lt: '<', gt: '>', nbsp: ' ', quot: '"', '#39': "'" };

/** Lines that were shown in the caption before and only rolled up are not said again. */
function withoutRolled(lines: readonly string[], before: readonly string[]): string[] {
  for (let n = Math.min(lines.length, before.length); n > 0; n--)
    if (lines.slice(0, n).every((line, i) => line === before[before.length - n + i])) return lines.slice(n);
  return [...lines];
}

/** Captions that grow word by word, or overlap, repeat what the one before said; only what is new stays. */
function withoutOverlap(pieces: readonly Piece[], left: Cleaned['left']): Piece[] {
  const out: Piece[] = [];
  for (const piece of pieces) {
    const before = out.at(-1);
    if (!before || piece.start - before.end > 2) {
      out.push({ ...piece });
      continue;
    }
    const [a, b] = [before.text.split(' '), piece.text.split(' ')];
    let n = Math.min(a.length, b.length);
    while (n > 0 && !same(a.slice(a.length - n), b.slice(0, n))) n--;
    // A word or two may be said twice on purpose; a whole caption, or three words, roll.
    if (n === 0 || (n < 3 && n < b.length && n < a.length)) {
      out.push({ ...piece });
      continue;
    }
    left.repeats++;
    if (n === a.length && n < b.length) out[out.length - 1] = { start: before.start, end: piece.end, text: piece.text };
    else if (n < b.length) out.push({ ...piece, text: b.slice(n).join(' ') });
    else before.end = Math.max(before.end, piece.end);
  }
  return out;
}

function same(a: readonly string[], b: readonly string[]): boolean {
  return a.every((word, i) => word.toLowerCase() === b[i]!.toLowerCase());
}

function withoutFillers(text: string, language: string, left: Cleaned['left']): string {
  const filler = FILLERS[language] ?? FILLERS['en']!;
  const cleaned = text.replace(filler, (found) => {
    left.fillers++;
    return /^\p{Lu}/u.test(found) ? BEGINS : '';
  });
  return cleaned
    .replace(new RegExp(`${BEGINS}\\s*(\\p{L}?)`, 'gu'), (_, letter: string) => letter.toUpperCase())
    .replace(/(?<!\s)\s+([,.;:?!])/g, '$1')
    .replace(/^[,;\s]+/, '')
    .replace(/\s+/g, ' ')
    .trim();
}

/** Whether captions carry punctuation: a stop in every eighty words or so. */
function punctuated(pieces: readonly Piece[]): boolean {
  const text = pieces.map((piece) => piece.text).join(' ');
  return (text.match(/[.?!…](?:\s|$)/g) ?? []).length * 80 >= text.split(' ').length;
}

/** Sentences over the joined text; where one begins inside a caption, its time is found by the share of the caption before it. */
function bySentences(pieces: readonly Piece[], language: string): Spoken[] {
  const starts: { at: number; piece: Piece }[] = [];
  let text = '';
  for (const piece of pieces) {
    if (text !== '') text += ' ';
    starts.push({ at: text.length, piece });
    text += piece.text;
  }
  const timeAt = (at: number): number => {
    let low = 0;
    for (let high = starts.length; low + 1 < high; ) {
      const middle = (low + high) >> 1;
      if (starts[middle]!.at <= at) low = middle;
      else high = middle;
    }
    const { at: from, piece } = starts[low]!;
    return piece.start + (piece.end - piece.start) * Math.min(1, (at - from) / Math.max(1, piece.text.length));
  };
  const out: Spoken[] = [];
  let from = 0;
  for (const sentence of sentencesOf(text, language)) {
    const at = text.indexOf(sentence, from);
    const start = at < 0 ? from : at;
    from = start + sentence.length;
    out.push({ start: timeAt(start), end: timeAt(Math.max(start, from - 1)), text: capital(sentence) });
  }
  return out;
}

/** One word with when it is said. */
interface SaidWord {
  text: string;
  start: number;
  end: number;
}

/**
 * Sentences of captions without punctuation: after a pause one always begins, else where {@link sentenceEnds} finds it likely,
 * by the silence before each word where words have times of their own.
 */
function byPauses(pieces: readonly Piece[], language: string, timed: readonly TimedWord[]): Spoken[] {
  const all = pieces.map((piece) => wordsOf(piece, language));
  const words = all.flat();
  const times = timesOf(
    words.map(({ text }) => text),
    timed,
  );
  const pauses = pausesBefore(
    words.map(({ text }) => text),
    times,
  );
  // Behind a pause between two captions a sentence begins, whatever its words are.
  const begins = new Set([0]);
  let at = 0;
  for (const [i, own] of all.entries()) {
    if (i > 0 && pieces[i]!.start - all[i - 1]!.at(-1)!.end > PAUSE) begins.add(at);
    at += own.length;
  }
  const starts = [...begins, words.length];
  return starts.slice(0, -1).flatMap((from, i) => {
    const part = words.slice(from, starts[i + 1]);
    const ends = sentenceEnds(
      part.map(({ text }) => text),
      language,
      pauses.slice(from, starts[i + 1]),
    );
    return ends.map((end, n) => sentenceOf(part.slice(ends[n - 1] ?? 0, end)));
  });
}

function sentenceOf(words: readonly SaidWord[]): Spoken {
  const text = capital(words.map((word) => word.text).join(' '));
  return {
    start: words[0]!.start,
    end: words.at(-1)!.end,
    text: /[.?!…]$/.test(text) ? text : `${text.replace(/[,;:]$/, '')}.`,
  };
}

/** The words of a caption, its time shared out evenly. */
function wordsOf(piece: Piece, language: string): SaidWord[] {
  const words = piece.text.split(' ');
  const each = (piece.end - piece.start) / words.length;
  return words.map((word, i) => ({
    text: language === 'en' ? word.replace(/^i(?=$|['’])/, 'I') : word,
    start: piece.start + each * i,
    end: piece.start + each * (i + 1),
  }));
}

function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}
