import { CadenceRule, ProcedureDocument } from '@grivo/core';
import { z } from 'zod';

/** What the API takes. */
export const SignIn = z.strictObject({ email: z.string().max(190), password: z.string().max(500) });

export const NewSource = z.strictObject({ name: z.string().trim().min(1).max(120) });

/** A paste of keywords; a megabyte and a half is more than anybody types. */
export const KeywordPaste = z.strictObject({ paste: z.string().max(1_500_000) });

const address = z.url({ protocol: /^https?$/ }).max(500);

export const NewService = z.strictObject({
  role: z.enum(['writer', 'illustrator', 'look-up']),
  name: z.string().trim().min(1).max(120),
  address,
  model: z.string().max(120).default(''),
  secret: z.string().max(1_000).nullable().default(null),
  price: z.strictObject({
    microsPerThousandIn: z.int().min(0),
    microsPerThousandOut: z.int().min(0),
    microsPerPicture: z.int().min(0),
  }),
  permits: z.int().min(1).max(100).default(4),
  timeLimitMs: z.int().min(1_000).max(600_000).default(60_000),
});

export const NewSecret = z.strictObject({ secret: z.string().trim().min(1).max(1_000) });

export const NewBlog = z.strictObject({
  name: z.string().trim().min(1).max(120),
  address,
  endpoint: address,
  secret: z.string().trim().min(1).max(1_000),
  language: z.string().regex(/^[a-z]{2}$/, 'a language as en'),
  cadence: CadenceRule,
});

export const NewPipeline = z.strictObject({
  name: z.string().trim().min(1).max(120),
  document: ProcedureDocument,
  openLimit: z.int().min(1).max(1_000).default(10),
});

export const TakeItems = z.strictObject({ items: z.array(z.string().length(20)).min(1).max(1_000).optional() });

export const SpendingLimit = z.strictObject({ capMicros: z.int().min(0).nullable() });

/** The desk clock put to a moment (null: the real one) and let run at a speed; 0 stops it. */
export const DeskClockSetting = z.strictObject({
  at: z.iso.datetime().nullable(),
  speed: z.number().min(0).max(100_000),
});
