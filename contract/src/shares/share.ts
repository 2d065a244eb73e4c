import { z } from 'zod';
import { Desk } from '../id.ts';

/** For how long an address can be read by whoever has it; null until it is taken back. */
export const NewShare = z.strictObject({
  days: z.int().min(1).max(365).nullable().default(30),
  /** Whether whoever has it may say something of the article too. */
  comments: z.boolean().default(false),
});

/** The address at which an article can be read without signing in; null where it is not shared. */
export const Share = z.object({
  share: z.object({ address: z.string(), endsDesk: Desk.nullable(), seen: z.int(), comments: z.boolean() }).nullable(),
});
export type Share = z.infer<typeof Share>;

/** What somebody without an account says of a shared article, as the form of its page sends it. */
export const GuestComment = z.object({
  name: z.string().trim().max(60, 'at most 60 letters').default(''),
  block: z.string().regex(/^[\w-]{1,60}$/),
  words: z.string().trim().min(1, 'some words').max(2_000, 'at most 2,000 letters'),
});
