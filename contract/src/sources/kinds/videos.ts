import { z } from 'zod';
import { everyLook, GivenFile, WebAddress } from './look.ts';

export const VideoSettings = z.strictObject({
  kind: z.literal('videos'),
  ...everyLook,
  /** Addresses of single videos. */
  addresses: z.array(WebAddress).max(500).default([]),
  /** Captions that were uploaded, each as what is said in one recording. */
  captions: z.array(GivenFile).max(200).default([]),
  /** Address of a channel or a playlist whose videos are watched. */
  channel: WebAddress.nullable().default(null),
  channelName: z.string().max(200).default(''),
  /** Videos shorter than so many seconds are left out. */
  shortest: z.int().min(0).max(36_000).default(60),
});
export type VideoSettings = z.infer<typeof VideoSettings>;
