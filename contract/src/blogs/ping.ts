import { z } from 'zod';
import { Address } from '../id.ts';

/** Whom the news of a blog are told to: a search engine, and the hub of its feed. */
export const PING_KINDS = ['search', 'hub'] as const;
export type PingKind = (typeof PING_KINDS)[number];

/** An address, or empty for nobody. */
const Told = z.union([z.literal(''), Address]);

export const PingsChange = z.strictObject({ search: Told, hub: Told }).partial();
export type PingsChange = z.infer<typeof PingsChange>;

export const Pings = z.object({
  /** Where search engines are told by the IndexNow protocol; empty when they are not. */
  search: z.string(),
  /** The text they ask the blog for, to see that it is ours to speak for. */
  code: z.string(),
  /** Where the blog must show it. */
  codeAt: z.string(),
  /** Whether it is read there; null when nobody looked. */
  codeFound: z.boolean().nullable(),
  /** The hub that is told; empty when none is. */
  hub: z.string(),
  /** The feed the hub is told of; empty where none was found. */
  feed: z.string(),
  /** What came of telling, of each that is told. */
  standings: z.array(
    z.object({
      kind: z.enum(PING_KINDS),
      waiting: z.int(),
      told: z.int(),
      /** When it was told last (ISO 8601); null when never. */
      lastAt: z.string().nullable(),
      refused: z.int(),
      /** What was said to the last that was refused. */
      said: z.string(),
    }),
  ),
  /** Where the list of our articles is read, as JSON Feed and as HTML; null where that is not switched on. */
  list: z.object({ json: z.string(), html: z.string() }).nullable(),
});
export type Pings = z.infer<typeof Pings>;

export const ListSwitch = z.strictObject({ on: z.boolean() });
