import { z } from 'zod';
import { Desk } from '../id.ts';

/** For how long an address can be read by whoever has it; null until it is taken back. */
export const NewShare = z.strictObject({ days: z.int().min(1).max(365).nullable().default(30) });

/** The address at which an article can be read without signing in; null where it is not shared. */
export const Share = z.object({
  share: z.object({ address: z.string(), endsDesk: Desk.nullable(), seen: z.int() }).nullable(),
});
export type Share = z.infer<typeof Share>;
