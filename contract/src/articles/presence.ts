import { z } from 'zod';

/** Somebody else who has an article open. */
export const AlsoHere = z.object({
  name: z.string(),
  /** The block they are at; null where they are at none. */
  block: z.string().nullable(),
  editing: z.boolean(),
  /** Whether it is whoever asks, on another page. */
  me: z.boolean(),
});
export type AlsoHere = z.infer<typeof AlsoHere>;
export const WhoIsHere = z.object({ others: z.array(AlsoHere) });

export const BeHere = z.strictObject({
  /** Names the page it is open on. */
  page: z.string().regex(/^[\w-]{1,40}$/),
  block: z
    .string()
    .regex(/^[\w-]{1,60}$/)
    .nullable(),
  editing: z.boolean(),
  /** Whether the page is being left. */
  leaves: z.boolean().default(false),
});
