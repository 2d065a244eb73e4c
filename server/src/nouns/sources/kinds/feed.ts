import type { Failure } from '@grivo/core';
import type { FoundEntry } from '../../../formats/feeds/entries.ts';
import { type FeedState, getFeedSince } from '../../../formats/feeds/find.ts';
import { sha } from '../../../ground/sha.ts';
import { keepSubscribed } from '../../../ports/websub/subscriptions.ts';
import type { Found, SourceReader } from '../kind.ts';

/** States of feeds when they were read and kept, by source, settings and address; lost with the process, which harms nothing. */
const states = new Map<string, FeedState>();
const MOST_STATES = 5_000;

/** Entries of feeds, read as one, the oldest first; an entry that stands in several is one. */
export const feed: SourceReader<'feed'> = {
  async look(ports, source, signal) {
    const { settings } = source;
    const key = (address: string) => sha(JSON.stringify([source.id, settings, address]));
    const all = await Promise.all(
      settings.feeds.map(async ({ address, name }) => ({
        address,
        name,
        got: await getFeedSince(ports, address, signal, states.get(key(address)) ?? null, { name, settings }),
      })),
    );
    // What is as it was when it was kept has nothing that is new.
    const got = all.flatMap((one) => (one.got === 'unchanged' ? [] : [{ ...one, got: one.got }]));
    const broken = got.flatMap(({ got: one, name, address }) => (one.ok ? [] : [`${name || address}: ${one.reason}`]));
    const unread = (reasons: string[], mend: string): Failure => ({
      code: 'source-unreadable',
      source: source.id,
      reason: reasons.slice(0, 3).join('; ') || 'it names no feed',
      mend,
    });
    // One that cannot be read today does not keep the others from being read.
    if (broken.length === all.length)
      return { ok: false, failure: unread(broken, 'Open the address, and give that of the feed if it is another.') };
    if (settings.push)
      for (const { got: one } of got)
        if (one.ok && one.hub !== null)
          await keepSubscribed(ports, source.id, { topic: one.self, hub: one.hub }, signal);
    const sorted = inTime(got.flatMap(({ got: one }) => (one.ok ? [one.found.map(asFound)] : [])));
    return {
      ok: true,
      // A feed shows its newest only.
      ended: {
        whole: false,
        partly: broken.length > 0 ? unread(broken, 'The others were read; open the address of this one.') : null,
      },
      entries: (async function* () {
        yield sorted;
        // Asked for more, what was given is kept.
        if (states.size > MOST_STATES) states.clear();
        for (const { address, got: one } of got)
          if (one.ok && (one.state.etag !== '' || one.state.modified !== '')) states.set(key(address), one.state);
      })(),
    };
  },
};

/** An entry as a look hands it on. */
export function asFound({ fields, ...one }: FoundEntry): Found {
  return { ...one, fields: () => fields };
}

/** Entries of several feeds in the order they came out, each once; one without a date lies where its own feed has it. */
function inTime(feeds: readonly Found[][]): Found[] {
  const dated = feeds.flatMap((entries) => {
    let at = 0;
    return entries.map((entry) => {
      at = entry.publishedDesk ?? at;
      return { entry, at };
    });
  });
  dated.sort((a, b) => a.at - b.at);
  return [...new Map(dated.map(({ entry }) => [entry.identity, entry] as const).reverse()).values()].reverse();
}
