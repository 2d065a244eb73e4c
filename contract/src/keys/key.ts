import { z } from 'zod';
import { Id, Name } from '../id.ts';

/** What a program may do with a key: look, hand subjects in and take them, or all an editor may. */
export const KeyScope = z.enum(['look', 'hand in', 'edit']);
export type KeyScope = z.infer<typeof KeyScope>;

export const NewKey = z.strictObject({
  name: Name,
  scope: KeyScope,
  /** The last day it is good for, as 2026-12-31; null for no end. */
  until: z.iso.date('a day as 2026-12-31').nullable().default(null),
});
/** The key itself is shown once. */
export const KeyMade = z.object({ id: Id, key: z.string() });
export const AccessKey = z.object({
  id: Id,
  name: z.string(),
  scope: KeyScope,
  by: z.string(),
  made: z.string(),
  used: z.string().nullable(),
  revoked: z.string().nullable(),
  /** When it stops being good. */
  ends: z.string().nullable(),
});
export type AccessKey = z.infer<typeof AccessKey>;
export const AccessKeys = z.object({ keys: z.array(AccessKey) });
