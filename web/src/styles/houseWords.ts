import type { HouseWord } from '@grivo/core';

const WORD = 80;

export type ReadWords = { ok: true; words: HouseWord[] } | { ok: false; problem: string };

/** Words of a house as people type them, a line each: what is said, a colon, what it stands for, commas between. */
export function readWords(text: string): ReadWords {
  const words: HouseWord[] = [];
  const said = new Map<string, string>();
  for (const [i, raw] of text.split('\n').entries()) {
    const line = raw.trim();
    if (line === '') continue;
    const at = line.indexOf(':');
    const use = line.slice(0, at).trim();
    const not = line
      .slice(at + 1)
      .split(/[,;]/)
      .map((one) => one.trim())
      .filter((one) => one !== '');
    const wrong = (problem: string): ReadWords => ({ ok: false, problem: `Line ${i + 1}: ${problem}` });
    if (at < 0 || use === '' || not.length === 0)
      return wrong('what we say, a colon, then what it is said for, as “brine: salt water”.');
    if ([use, ...not].some((one) => one.length > WORD)) return wrong(`a word has at most ${WORD} letters.`);
    for (const one of not) {
      const other = said.get(one.toLowerCase());
      if (other !== undefined) return wrong(`“${one}” is already said as “${other}”.`);
      if (one.toLowerCase() === use.toLowerCase()) return wrong(`“${one}” would stand for itself.`);
      said.set(one.toLowerCase(), use);
    }
    words.push({ use, not });
  }
  return words.length > 300 ? { ok: false, problem: `${words.length} lines; 300 are the most.` } : { ok: true, words };
}

export const writtenWords = (words: readonly HouseWord[]): string =>
  words.map(({ use, not }) => `${use}: ${not.join(', ')}`).join('\n');

/** Things one a line. */
export const linesIn = (text: string): string[] =>
  text
    .split('\n')
    .map((line) => line.trim())
    .filter((line) => line !== '');
