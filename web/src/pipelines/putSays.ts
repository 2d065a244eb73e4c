import { z } from 'zod';
import { plural } from '../words/figures.ts';

/** What came of putting an article in other words. */
export const PutResult = z.object({ likeness: z.number(), rounds: z.number(), leftAsTheyWere: z.number() });

/** The same as a sentence. */
export function putSays({ likeness, rounds, leftAsTheyWere }: z.infer<typeof PutResult>): string {
  const left =
    leftAsTheyWere === 0
      ? ''
      : ` ${plural(leftAsTheyWere, 'text')} could not be said otherwise without losing a figure, a link or a word that stays, and ${leftAsTheyWere === 1 ? 'was' : 'were'} left.`;
  return `${likeness} % of it still stands word for word as before or in its sources, after ${plural(rounds, 'round')}.${left}`;
}
