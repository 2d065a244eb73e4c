import makeBidi from 'bidi-js';

const bidi = makeBidi();

export interface Run {
  /** In the order it is read, mirrored where it runs from the right. */
  text: string;
  fromRight: boolean;
}

/** A part of a line whose letters run one way; from the right where its level is odd. */
export interface Range {
  from: number;
  to: number;
  level: number;
}

/**
 * The parts of a line in the order they stand from left to right (Unicode Standard Annex 9, rules L2 and L4).
 * @param fromRight the direction of the text it is a line of
 */
export function orderOf(line: string, fromRight: boolean): Range[] {
  const { levels } = bidi.getEmbeddingLevels(line, fromRight ? 'rtl' : 'ltr');
  const ranges: Range[] = [];
  for (let at = 0; at < line.length; at++) {
    const level = levels[at]!;
    const last = ranges.at(-1);
    if (last?.level === level) last.to = at + 1;
    else ranges.push({ from: at, to: at + 1, level });
  }
  const highest = Math.max(0, ...ranges.map(({ level }) => level));
  for (let level = highest; level > 0; level--)
    for (let at = 0; at < ranges.length; at++) {
      let end = at;
      while (end < ranges.length && ranges[end]!.level >= level) end++;
      if (end > at + 1) ranges.splice(at, end - at, ...ranges.slice(at, end).reverse());
      if (end > at) at = end;
    }
  return ranges;
}

/** The runs of a line in the order they stand from left to right. */
export function runsOf(line: string, fromRight: boolean): Run[] {
  return orderOf(line, fromRight).map(({ from, to, level }) => {
    const text = line.slice(from, to);
    return { text: level % 2 === 1 ? mirrored(text) : text, fromRight: level % 2 === 1 };
  });
}

/** Brackets and the like as they look in a run from the right. */
export const mirrored = (text: string): string =>
  [...text].map((letter) => bidi.getMirroredCharacter(letter) ?? letter).join('');
