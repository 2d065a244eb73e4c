import type { ReadRequest, Sentence } from './request.ts';
import { type Manner, rewrite } from './rewrite.ts';

/** A sentence of the material as it is written: in words of its own where it is known, else as far as a rule is safe. */
export function saying(
  { statement, text }: Pick<Sentence, 'statement' | 'text'>,
  request: ReadRequest,
  manner: Manner,
  chance: (options: number) => number,
): string {
  return statement
    ? rewrite(request.put(statement), { ...manner, wording: [], turns: 0 }, chance)
    : rewrite(text, manner, chance);
}
