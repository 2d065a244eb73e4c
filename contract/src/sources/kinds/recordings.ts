import { z } from 'zod';
import { everyLook, GivenFile, WebAddress } from './look.ts';

export const RecordingSettings = z.strictObject({
  kind: z.literal('recordings'),
  ...everyLook,
  /** Recordings that were uploaded or spoken. */
  files: z.array(GivenFile).max(500).default([]),
  /** A podcast's feed, whose episodes come in; null reads none. */
  podcast: WebAddress.nullable().default(null),
  podcastName: z.string().max(200).default(''),
  /** Episodes longer than so many minutes are left out, since each is paid for. */
  longestMinutes: z.int().min(1).max(600).default(120),
});
export type RecordingSettings = z.infer<typeof RecordingSettings>;
