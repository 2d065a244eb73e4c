import { type Box, type Face, isSet, type SetLine } from './type.ts';

export interface FitRule {
  /** Sizes the text may have, in pixels. */
  from: number;
  to: number;
  /** Lines it may take. */
  most: number;
  /** From baseline to baseline, as a multiple of the size. */
  leading: number;
}

export interface FittedLine {
  text: string;
  set: SetLine;
  /** Where the line starts on its baseline, seen from the box. */
  x: number;
  y: number;
}

export type Fitted =
  | { ok: true; size: number; lines: FittedLine[] }
  | { ok: false; why: 'too long' }
  | { ok: false; why: 'no such letter'; letter: string };

export type Across = 'start' | 'middle' | 'end';
export type Down = 'top' | 'middle' | 'foot';

/** Letters of scripts that put no spaces between words: a line may end after each. */
const UNSPACED = /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Thai}]/u;
/** Letters a word may be parted after. */
const PARTING: ReadonlySet<string> = new Set('-‐–—/');

/** A word in the parts it can be parted into. */
function partsOf(word: string): string[] {
  const parts: string[] = [];
  let part = '';
  for (const letter of word) {
    const unspaced = UNSPACED.test(letter);
    const ends = part !== '' && PARTING.has(part.at(-1)!) && !PARTING.has(letter);
    if (part !== '' && (unspaced || ends)) {
      parts.push(part);
      part = '';
    }
    part += letter;
    if (unspaced) {
      parts.push(part);
      part = '';
    }
  }
  return part === '' ? parts : [...parts, part];
}

/** A sign that belongs to the figure before it. */
const SIGN = /^(?:[%‰‱°€$£]|°[CF])\p{P}*$/u;

interface Part {
  text: string;
  /** Whether a space stands before it. */
  apart: boolean;
  advance: number;
}

interface Word extends Part {
  /** What it can be parted into where it is wider than a line. */
  parts: readonly Part[];
}

function wordsIn(text: string, face: Face, fromRight: boolean): Word[] | { missing: string } {
  const words: string[] = [];
  for (const word of text.trim().split(/\s+/)) {
    if (SIGN.test(word) && words.length > 0) words[words.length - 1] += `\u00a0${word}`;
    else if (word !== '') words.push(word);
  }
  const out: Word[] = [];
  for (const word of words) {
    const whole = face.set(word, fromRight);
    if (!isSet(whole)) return whole;
    const parts = partsOf(word).map((part, n) => ({
      text: part,
      apart: n === 0,
      advance: advanceOf(face, part, fromRight),
    }));
    out.push({ text: word, apart: true, advance: whole.advance, parts });
  }
  return out;
}

/** The words in as few lines of a width as they take (greedy), or null when a part of one is wider by itself. In thousandths of the size. */
function broken(words: readonly Word[], width: number, space: number): string[] | null {
  const lines: string[] = [];
  let line = '';
  let taken = 0;
  for (const word of words)
    for (const { text, apart, advance } of word.advance > width || UNSPACED.test(word.text) ? word.parts : [word]) {
      if (advance > width) return null;
      const gap = line !== '' && apart ? space : 0;
      if (line !== '' && taken + gap + advance > width) {
        lines.push(line);
        line = text;
        taken = advance;
      } else {
        line += (gap > 0 ? ' ' : '') + text;
        taken += gap + advance;
      }
    }
  if (line !== '') lines.push(line);
  return lines;
}

/** The same number of lines as evenly filled as can be: the narrowest width that takes no more of them. */
function evenly(words: readonly Word[], width: number, space: number, many: number): string[] {
  let [low, high] = [width / 2, width];
  while (high - low > 5) {
    const middle = (low + high) / 2;
    const lines = broken(words, middle, space);
    if (lines && lines.length <= many) high = middle;
    else low = middle;
  }
  return broken(words, high, space)!;
}

/**
 * Sets a text into a box at the largest size at which all of it stands there in so many lines; it is never cut, and never
 * smaller than the rule allows.
 * @returns the lines with their places, or why it cannot stand there
 */
export function fitText(
  text: string,
  face: Face,
  box: Pick<Box, 'width' | 'height'>,
  rule: FitRule,
  stands: { across: Across; down: Down; rightToLeft: boolean },
): Fitted {
  const words = wordsIn(text, face, stands.rightToLeft);
  if ('missing' in words) return { ok: false, why: 'no such letter', letter: words.missing };
  if (words.length === 0) return { ok: true, size: rule.to, lines: [] };
  const space = advanceOf(face, ' ', stands.rightToLeft);
  const reach = face.reach(text);
  const high = (many: number, size: number) => ((reach.above + reach.below) / 1_000 + (many - 1) * rule.leading) * size;
  for (let size = rule.to; size >= rule.from; size--) {
    const width = (box.width / size) * 1_000;
    const lines = broken(words, width, space);
    if (!lines || lines.length > rule.most || high(lines.length, size) > box.height) continue;
    const placed = placedIn(box, evenly(words, width, space, lines.length), face, { size, rule, stands });
    if (placed) return { ok: true, size, lines: placed };
  }
  return { ok: false, why: 'too long' };
}

const advanceOf = (face: Face, text: string, fromRight: boolean): number => {
  const line = face.set(text, fromRight);
  return isSet(line) ? line.advance : 0;
};

/** The lines in their places, or null where the ink of one would stand out of the box. */
function placedIn(
  box: Pick<Box, 'width' | 'height'>,
  texts: readonly string[],
  face: Face,
  { size, rule, stands }: { size: number; rule: FitRule; stands: { across: Across; down: Down; rightToLeft: boolean } },
): FittedLine[] | null {
  const em = size / 1_000;
  const { above, below } = face.reach(texts.join(' '));
  const height = (above + below) * em + (texts.length - 1) * rule.leading * size;
  const room = box.height - height;
  const top = stands.down === 'top' ? 0 : stands.down === 'foot' ? room : room / 2;
  const atRight = (stands.across === 'end') !== (stands.rightToLeft && stands.across !== 'middle');
  const placed: FittedLine[] = [];
  for (const [n, text] of texts.entries()) {
    const set = face.set(text, stands.rightToLeft);
    if (!isSet(set)) return null;
    const [left, right] = [Math.min(0, set.ink.left) * em, Math.max(set.advance, set.ink.right) * em];
    const free = box.width - (right - left);
    if (free < -0.01) return null;
    const x = -left + (stands.across === 'middle' ? free / 2 : atRight ? free : 0);
    placed.push({ text, set, x, y: top + above * em + n * rule.leading * size });
  }
  return placed;
}
