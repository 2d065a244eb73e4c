import { z } from 'zod';
import { everyLook, WebAddress } from './look.ts';

export const FeedSettings = z.strictObject({
  kind: z.literal('feed'),
  ...everyLook,
  /** Feeds that are read as one, each with what it is called. */
  feeds: z
    .array(z.strictObject({ address: WebAddress, name: z.string().max(200).default('') }))
    .max(200)
    .default([]),
  /** Entries whose text in the feed has fewer words are left out; 0 leaves none out. */
  shortest: z.int().min(0).max(2_000).default(0),
  /** Redirect addresses and the parameter that holds the true one; the usual ones are known without. */
  unwrap: z
    .array(
      z.strictObject({
        begins: WebAddress,
        parameter: z
          .string()
          .trim()
          .min(1)
          .max(60)
          .regex(/^[^&=?#\s]+$/, 'the name of a parameter, as url'),
      }),
    )
    .max(50)
    .default([]),
  /** Whether hubs that push are asked to, so that new entries come in at once. */
  push: z.boolean().default(true),
});
export type FeedSettings = z.infer<typeof FeedSettings>;
