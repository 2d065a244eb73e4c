import { z } from 'zod';
import { Micros } from '../id.ts';

/** Texts of which a writer is to propose others that say the same. */
export const ProposeTexts = z.strictObject({
  texts: z.array(z.string().trim().min(1).max(2_000)).min(1).max(10),
  many: z.int().min(1).max(10).default(5),
  /** How often it was asked already; each time others come. */
  again: z.int().min(0).max(1_000).default(0),
});
export type ProposeTexts = z.infer<typeof ProposeTexts>;

export const TextsProposed = z.object({ texts: z.array(z.string()), micros: Micros });
export const ProposalPrice = z.object({ micros: Micros });
