import { z } from 'zod';
import { Desk, Id, Name } from '../id.ts';

export const NewSource = z.strictObject({ name: Name });

export const Source = z.object({
  id: Id,
  kind: z.literal('keywords'),
  name: z.string(),
  items: z.int(),
  taken: z.int(),
  lastLook: Desk.nullable(),
});
export type Source = z.infer<typeof Source>;
export const Sources = z.object({ sources: z.array(Source) });

/** A paste of keywords; a megabyte and a half is more than anybody types. */
export const KeywordPaste = z.strictObject({ paste: z.string().max(1_500_000, 'at most 1.5 million characters') });

export const DropReason = z.enum(['repeat', 'near repeat', 'already there', 'no letters', 'too long']);
export const CleanedPaste = z.object({
  added: z.int(),
  /** Phrases that stayed after spaces, marks and case were evened. */
  evened: z.int(),
  dropped: z.array(z.object({ phrase: z.string(), reason: z.string(), of: z.string().nullable() })),
});

export const Item = z.object({
  id: Id,
  subject: z.string(),
  taken: z.array(z.object({ pipeline: Id, brief: Id, standing: z.string() })),
});
export type Item = z.infer<typeof Item>;
export const Items = z.object({ items: z.array(Item) });
