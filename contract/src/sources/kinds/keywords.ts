import { OPPORTUNITY, opportunityProblem } from '@grivo/core';
import { z } from 'zod';
import { Country, everyLook, WebAddress } from './look.ts';

export const KeywordSettings = z.strictObject({
  kind: z.literal('keywords'),
  ...everyLook,
  /** What a line of a paste is: phrases parted by any sign, one title, or one short description. */
  lines: z.enum(['phrases', 'titles', 'descriptions']).default('phrases'),
  /** Whether each phrase is taken by itself, or those one article can serve together. */
  group: z.enum(['each', 'closely', 'loosely']).default('each'),
  /** How words that are spelt in two ways are spelt. */
  spelling: z.enum(['as typed', 'British', 'American']).default('as typed'),
  /** What a phrase promises, as an expression of its volume and difficulty. */
  opportunity: z
    .string()
    .trim()
    .min(1)
    .max(300)
    .superRefine((formula, context) => {
      const problem = opportunityProblem(formula);
      if (problem !== null) context.addIssue({ code: 'custom', message: problem });
    })
    .default(OPPORTUNITY),
  /** A site whose phrases come in when it is looked at; null when none is watched. */
  site: WebAddress.nullable().default(null),
  /** Phrases are taken to be searched for by readers there. */
  country: Country.nullable().default(null),
});
export type KeywordSettings = z.infer<typeof KeywordSettings>;
