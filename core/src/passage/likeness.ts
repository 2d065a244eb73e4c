import { fold, wordsOfText } from '../sentence/sentence.ts';

/** Words in a row that tell copied text from text on the same subject. */
const RUN = 5;

/**
 * Share of a text, 0 to 1, that stands in other texts word for word: of its words, those that are part of a run of five
 * words that one of the others has too.
 */
export function likeness(text: string, others: readonly string[], language = 'en'): number {
  const words = wordsOfText(fold(text), language);
  if (words.length < RUN) return 0;
  const known = new Set<string>();
  for (const other of others) for (const run of runsOf(wordsOfText(fold(other), language))) known.add(run);
  const met = new Array<boolean>(words.length).fill(false);
  runsOf(words).forEach((run, at) => {
    if (known.has(run)) met.fill(true, at, at + RUN);
  });
  return met.filter(Boolean).length / words.length;
}

function runsOf(words: readonly string[]): string[] {
  const out: string[] = [];
  for (let at = 0; at + RUN <= words.length; at++) out.push(words.slice(at, at + RUN).join(' '));
  return out;
}
