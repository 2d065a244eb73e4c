import { z } from 'zod';
import { Id } from '../id.ts';

/** What a program says when it calls a hook: an item, or that its pipelines should run. */
export const HookCall = z.union([
  z.looseObject({
    subject: z.string().trim().min(1, 'what it is about').max(500),
    /** Text to be written from. */
    notes: z.string().max(100_000).optional(),
    link: z
      .url({ protocol: /^https?$/, error: 'an address as https://…' })
      .max(1_000)
      .optional(),
    /** The same for every repeat of one call. */
    key: z.string().trim().min(1).max(100).optional(),
  }),
  z.strictObject({ run: z.literal(true), key: z.string().trim().min(1).max(100).optional() }),
]);
export type HookCall = z.infer<typeof HookCall>;

export const HookTaken = z.object({
  key: z.string(),
  /** Whether it was called with this key before; nothing was done again. */
  repeated: z.boolean(),
  standing: z.string(),
  /** Where to ask what became of it. */
  ask: z.string(),
});
export type HookTaken = z.infer<typeof HookTaken>;

/** What became of a call. */
export const HookOutcome = z.object({
  key: z.string(),
  received: z.string(),
  standing: z.string(),
  briefs: z.array(
    z.object({
      id: Id,
      standing: z.string(),
      article: z.object({ title: z.string(), address: z.string().nullable() }).nullable(),
      trouble: z.object({ sentence: z.string(), mend: z.string() }).nullable(),
    }),
  ),
});
export type HookOutcome = z.infer<typeof HookOutcome>;

/** How a hook is called. */
export const HookDoor = z.object({
  address: z.string(),
  /** What calls are signed with, as the Standard Webhooks write it; null for those who are no owners. */
  secret: z.string().nullable(),
  /** Lines to try it with. */
  curl: z.string(),
  ask: z.string(),
  calls: z.array(z.object({ key: z.string(), atDesk: z.int(), item: Id.nullable(), subject: z.string() })),
});
export type HookDoor = z.infer<typeof HookDoor>;

/** A subject with notes, typed in. */
export const NewRequest = z.strictObject({
  subject: z.string().trim().min(1, 'what it is about').max(500),
  notes: z.string().trim().max(100_000).default(''),
  link: z
    .url({ protocol: /^https?$/, error: 'an address as https://…' })
    .max(1_000)
    .nullable()
    .default(null),
});
export type NewRequest = z.infer<typeof NewRequest>;
