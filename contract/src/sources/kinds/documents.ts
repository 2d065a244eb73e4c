import { z } from 'zod';
import { everyLook, GivenFile, WebAddress } from './look.ts';

export const DocumentSettings = z.strictObject({
  kind: z.literal('documents'),
  ...everyLook,
  /** Pages and documents by their addresses. */
  addresses: z.array(WebAddress).max(500).default([]),
  /** Documents that were uploaded. */
  files: z.array(GivenFile).max(500).default([]),
  /** A sitemap whose pages come in, or that of the site at this address; null reads none. */
  sitemap: WebAddress.nullable().default(null),
  /** Only pages of the sitemap whose address holds this; empty takes all. */
  within: z.string().trim().max(300).default(''),
});
export type DocumentSettings = z.infer<typeof DocumentSettings>;
