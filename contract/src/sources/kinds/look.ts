import { z } from 'zod';

/** Where a source begins when it is first looked at; what comes later is always new. */
export const StartFrom = z.discriminatedUnion('at', [
  z.strictObject({ at: z.literal('the beginning') }),
  z.strictObject({ at: z.literal('now') }),
  z.strictObject({ at: z.literal('a day'), day: z.iso.date() }),
  z.strictObject({ at: z.literal('the last'), n: z.int().min(1).max(10_000) }),
]);
export type StartFrom = z.infer<typeof StartFrom>;

const words = z.array(z.string().trim().min(1).max(120)).max(200);
/** What settings of every kind hold. */
export const everyLook = {
  startFrom: StartFrom.default({ at: 'the beginning' }),
  /** Items whose subject holds one of these are left out. */
  exclude: words.default([]),
};

export const FileDigest = z.string().regex(/^[0-9a-f]{64}$/);
/** A file that was uploaded, with the name it had. */
export const GivenFile = z.strictObject({ file: FileDigest, fileName: z.string().max(200) });
export type GivenFile = z.infer<typeof GivenFile>;
export const WebAddress = z.url({ protocol: /^https?$/, error: 'an address as https://…' }).max(1_000);
export const Country = z.string().regex(/^[A-Z]{2}$/, 'a country as IE');
