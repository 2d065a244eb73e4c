import { keptPairs } from '../honesty/pairs/pairs.ts';

/** Made-up texts on a hundred subjects in two languages, to hold what is made of them. */
export function textsIn(language: 'en' | 'de', most: number): string[] {
  const { fitted, anew, latest } = keptPairs();
  const all = [...fitted, ...anew, ...latest].flatMap(([of, , , passage]) => (of === language ? [passage] : []));
  return [...new Set(all)].filter((text) => text.length > 200).slice(0, most);
}

/** A list to be held as a file: a line each. */
export const lines = (all: readonly string[]): string => `${all.join('\n')}\n`;
