import { fold } from '../sentence/sentence.ts';

const words = (text: string) =>
  fold(text)
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();

/** The first of some words, or rows of words, a subject holds whole, whatever its case; null when it holds none. */
export function excludedBy(subject: string, exclude: readonly string[]): string | null {
  const padded = ` ${words(subject)} `;
  return exclude.find((one) => padded.includes(` ${words(one)} `)) ?? null;
}
