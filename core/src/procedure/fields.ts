import { z } from 'zod';

/** What every step document has. */
export const stepBase = {
  id: z.string().regex(/^[a-z][a-z0-9]{0,15}$/, 'an id as s4'),
  off: z.boolean().default(false),
};

/** Own instruction of a making step: a Liquid text with the declared fields. */
export const instruction = z.string().max(20_000).default('');

/** A range with both ends, the first not above the second. */
export function range(least: number, most: number) {
  return z
    .strictObject({ from: z.int().min(least).max(most), to: z.int().min(least).max(most) })
    .refine((value) => value.from <= value.to, 'the first figure must not be above the second');
}
