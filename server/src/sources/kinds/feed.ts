import type { FeedSettings } from '@grivo/contract';
import { countWords, type Failure } from '@grivo/core';
import type { Entry, Feed } from '../../feeds/entry.ts';
import { type FeedState, getFeedSince } from '../../feeds/find.ts';
import { unwrapped } from '../../feeds/unwrap.ts';
import { keepSubscribed } from '../../websub/subscriptions.ts';
import { sha } from '../fingerprint.ts';
import type { Found, SourceReader } from '../kind.ts';

/** Entries whose link so many others share are not known by it: it is that of the site. */
const SHARED = 3;
/** Words of a text that tell by themselves whether it was there before; titles are reworded first. */
const ENOUGH = 25;

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
        got: await getFeedSince(ports.network, address, signal, states.get(key(address)) ?? null),
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
    const sorted = inTime(got.flatMap(({ name, got: one }) => (one.ok ? [entriesOf(one.feed, name, settings)] : [])));
    return {
      ok: true,
      // A feed shows its newest only.
      whole: false,
      partly: broken.length > 0 ? unread(broken, 'The others were read; open the address of this one.') : null,
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

/** What a feed lists, the oldest first, as far as dates or its order tell. */
export function entriesOf(read: Feed, name: string, settings: Pick<FeedSettings, 'unwrap' | 'shortest'>): Found[] {
  const from = name || read.title;
  const links = new Map<string, number>();
  const linkOf = (entry: Entry) => (entry.link === null ? null : unwrapped(entry.link, settings.unwrap));
  for (const entry of read.entries) {
    const link = linkOf(entry);
    if (link !== null) links.set(link, (links.get(link) ?? 0) + 1);
  }
  return read.entries
    .map((entry): Found => {
      const link = linkOf(entry);
      const own = link !== null && links.get(link)! < SHARED ? link : null;
      const words = countWords(entry.text, read.language ?? 'en');
      return {
        identity: own ?? entry.id ?? `says ${sha(JSON.stringify([from, entry.title, entry.text]))}`,
        subject: entry.title || link || 'An entry',
        content: '',
        text: words < ENOUGH ? `${entry.title} ${entry.text}` : entry.text,
        fields: () => ({
          ...(link === null ? {} : { link }),
          title: entry.title,
          about: from,
          ...(entry.text === '' ? {} : { summary: entry.text.slice(0, 20_000) }),
          entry: { feed: from, author: entry.author, published: entry.published, categories: entry.categories },
        }),
        publishedDesk: entry.published === null ? null : Date.parse(entry.published),
        leftOut:
          link === null && entry.text === ''
            ? { reason: 'unusable', detail: 'it has no address and no text' }
            : words < settings.shortest
              ? { reason: 'too short', detail: `${words} words in the feed, fewer than ${settings.shortest}` }
              : null,
      };
    })
    .reverse();
}
