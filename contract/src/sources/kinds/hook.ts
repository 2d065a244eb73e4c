import { RESERVED_FIELDS } from '@grivo/core';
import { z } from 'zod';
import { everyLook } from './look.ts';

export const HookSettings = z.strictObject({
  kind: z.literal('hook'),
  ...everyLook,
  /** What a call may say beside its subject, each under its name. */
  fields: z
    .array(
      z.strictObject({
        name: z
          .string()
          .regex(/^[a-z][A-Za-z0-9]{0,39}$/, 'a name of letters and figures that begins with a small letter')
          .refine((name) => !RESERVED_FIELDS.has(name), 'another name; this one means something else to a brief'),
        type: z.enum(['text', 'number', 'yes or no', 'address']),
        needed: z.boolean(),
      }),
    )
    .max(40)
    .default([]),
  /** Whether what comes waits until a person has said yes. */
  confirm: z.boolean().default(false),
  /** Whether calls must be signed. */
  signed: z.boolean().default(true),
});
export type HookSettings = z.infer<typeof HookSettings>;
