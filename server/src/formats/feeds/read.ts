import type { FeedSettings } from '@grivo/contract';
import { type Sketch, sketchOf } from '@grivo/core';
import { type PageHead, readHead } from '../documents/head.ts';
import { textOf } from '../documents/kind.ts';
import { entriesOf, type FoundEntry } from './entries.ts';
import type { Feed } from './entry.ts';
import { readFeed } from './feed.ts';

export interface FeedAsked {
  bytes: Uint8Array;
  mime: string;
  /** Where it was read, which its addresses lie beside. */
  address: string;
  /** Its entries are wanted as items, by these settings. */
  items?: { name: string; settings: Pick<FeedSettings, 'unwrap' | 'shortest'> };
}

export type FeedFound =
  | { ok: true; feed: Feed; found: (FoundEntry & { sketch: Sketch | null })[] }
  /** Of a web page there, what it says of itself, so that the feed it names can be found. */
  | { ok: false; problem: string; page: PageHead | null };

/** A feed, with its entries as items where they are wanted; those are then not given a second time as they stand. */
export function feedFound({ bytes, mime, address, items }: FeedAsked): FeedFound {
  const text = textOf(bytes, mime);
  const read = readFeed(text, address);
  if (!read.ok)
    return { ok: false, problem: read.problem, page: /web page/.test(read.problem) ? readHead(text) : null };
  // Whoever wants no items wants no texts either: those are most of a feed.
  if (!items)
    return {
      ok: true,
      feed: { ...read.feed, entries: read.feed.entries.map((one) => ({ ...one, text: '' })) },
      found: [],
    };
  const found = entriesOf(read.feed, items.name, items.settings).map((one) => ({
    ...one,
    sketch: one.text === null ? null : sketchOf(one.text),
    // Only its sketch was wanted.
    text: null,
  }));
  return { ok: true, feed: { ...read.feed, entries: [] }, found };
}
