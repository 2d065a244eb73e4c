import type { FeedSettings } from '@grivo/contract';
import { countWords } from '@grivo/core';
import { sha } from '../../ground/sha.ts';
import type { Entry, Feed } from './entry.ts';
import { unwrapped } from './unwrap.ts';

/** An entry of a feed as an item. */
export interface FoundEntry {
  identity: string;
  subject: string;
  content: string;
  text: string | null;
  fields: Record<string, unknown>;
  publishedDesk: number | null;
  leftOut: { reason: 'unusable' | 'too short'; detail: string } | null;
}

/** Entries whose link so many others share are not known by it: it is that of the site. */
const SHARED = 3;
/** Words of a text that tell by themselves whether it was there before; titles are reworded first. */
const ENOUGH = 25;

/** What a feed lists, the oldest first, as far as dates or its order tell. */
export function entriesOf(read: Feed, name: string, settings: Pick<FeedSettings, 'unwrap' | 'shortest'>): FoundEntry[] {
  const from = name || read.title;
  const links = new Map<string, number>();
  const linkOf = (entry: Entry) => (entry.link === null ? null : unwrapped(entry.link, settings.unwrap));
  for (const entry of read.entries) {
    const link = linkOf(entry);
    if (link !== null) links.set(link, (links.get(link) ?? 0) + 1);
  }
  return read.entries
    .map((entry): FoundEntry => {
      const link = linkOf(entry);
      const own = link !== null && links.get(link)! < SHARED ? link : null;
      const words = countWords(entry.text, read.language ?? 'en');
      return {
        identity: own ?? entry.id ?? `says ${sha(JSON.stringify([from, entry.title, entry.text]))}`,
        subject: entry.title || link || 'An entry',
        content: '',
        text: words < ENOUGH ? `${entry.title} ${entry.text}` : entry.text,
        fields: {
          ...(link === null ? {} : { link }),
          title: entry.title,
          about: from,
          ...(entry.text === '' ? {} : { summary: entry.text.slice(0, 20_000) }),
          entry: { feed: from, author: entry.author, published: entry.published, categories: entry.categories },
        },
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
