import type { Token } from '../honesty/token.ts';
import { type SeriesWords, wordsFor } from './words.ts';

/** Tokens of a text between two of its commas, stops and joining words. */
export type Clause = readonly Token[];

/** A colon after more words than that ends a clause: what stands before it is no label. */
const LONGEST_LABEL = 3;

/** A text in clauses; figures with points and commas inside are whole tokens already. */
export function clausesOf(tokens: readonly Token[], language: string): Clause[] {
  const words = wordsFor(language);
  const out: Token[][] = [[]];
  for (const [n, token] of tokens.entries()) {
    const now = out.at(-1)!;
    // '3–5 days' is one span.
    const spans = /^[–—]$/.test(token.text) && tokens[n - 1]?.kind === 'number' && tokens[n + 1]?.kind === 'number';
    const parts = spans
      ? false
      : token.kind === 'sign'
        ? /^[,;.!?()–—]$/.test(token.text) || (token.text === ':' && now.length > LONGEST_LABEL)
        : joins(token, words) && now.length > 0;
    if (parts) out.push([]);
    else now.push(token);
  }
  return out.filter((clause) => clause.length > 0);
}

const joins = ({ lower }: Token, { joining }: SeriesWords): boolean => joining.has(lower);
