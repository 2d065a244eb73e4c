import makeBidi from 'bidi-js';

const bidi = makeBidi();

export interface Run {
  /** In the order it is read, mirrored where it runs from the right. */
  text: string;
  fromRight: boolean;
}

/**
 * The runs of a line in the order they stand from left to right (Unicode Standard Annex 9, rules L2 and L4).
 * @param fromRight the direction of the text it is a line of
 */
export function runsOf(line: string, fromRight: boolean): Run[] {
  const { levels } = bidi.getEmbeddingLevels(line, fromRight ? 'rtl' : 'ltr');
  const runs: { text: string; level: number }[] = [];
  for (let at = 0; at < line.length; at++) {
    const level = levels[at]!;
    const last = runs.at(-1);
    if (last?.level === level) last.text += line[at]!;
    else runs.push({ text: line[at]!, level });
  }
  const highest = Math.max(0, ...runs.map(({ level }) => level));
  for (let level = highest; level > 0; level--)
    for (let at = 0; at < runs.length; at++) {
      let end = at;
      while (end < runs.length && runs[end]!.level >= level) end++;
      if (end > at + 1) runs.splice(at, end - at, ...runs.slice(at, end).reverse());
      if (end > at) at = end;
    }
  return runs.map(({ text, level }) => ({ text: level % 2 === 1 ? mirrored(text) : text, fromRight: level % 2 === 1 }));
}

const mirrored = (text: string): string =>
  [...text].map((letter) => bidi.getMirroredCharacter(letter) ?? letter).join('');
