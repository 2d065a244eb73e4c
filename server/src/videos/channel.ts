import { XMLParser } from 'fast-xml-parser';
import { parseHTML } from 'linkedom';
import { z } from 'zod';
import type { Network } from '../network/network.ts';

/** A video as a channel's feed lists it. */
export interface ListedVideo {
  address: string;
  title: string;
  published: string | null;
  seconds: number | null;
}

export type ReadChannel =
  | { ok: true; address: string; name: string; videos: ListedVideo[] }
  | { ok: false; reason: string };

const TIME_LIMIT_MS = 20_000;
const MOST_BYTES = 5_000_000;

/**
 * The videos of a channel or playlist, newest first as it lists them: by the feed (RFC 4287, RSS 2.0, with Media RSS
 * durations) its page names, or that the address itself is.
 */
export async function readChannel(network: Network, address: string, signal: AbortSignal): Promise<ReadChannel> {
  const page = await get(network, address, signal);
  if (!page.ok) return page;
  if (isFeed(page.body)) return fromFeed(page.body, page.address, page.address);
  const { document } = parseHTML(page.body);
  const link = document.querySelector(
    'link[rel="alternate"][type="application/atom+xml"], link[rel="alternate"][type="application/rss+xml"]',
  );
  const href = link?.getAttribute('href');
  if (!href || !URL.canParse(href, page.address)) return { ok: false, reason: 'the page names no feed of its videos' };
  const feed = await get(network, new URL(href, page.address).href, signal);
  if (!feed.ok) return feed;
  return fromFeed(feed.body, feed.address, page.address);
}

async function get(
  network: Network,
  address: string,
  signal: AbortSignal,
): Promise<{ ok: true; body: string; address: string } | { ok: false; reason: string }> {
  const outcome = await network.call({
    method: 'GET',
    address,
    timeLimitMs: TIME_LIMIT_MS,
    maxBytes: MOST_BYTES,
    signal,
  });
  if (outcome.kind !== 'reply')
    return { ok: false, reason: outcome.kind === 'refused' ? outcome.reason : outcome.detail };
  if (outcome.reply.status === 404) return { ok: false, reason: 'there is no such channel' };
  if (outcome.reply.status !== 200) return { ok: false, reason: `it answers ${outcome.reply.status}` };
  return { ok: true, body: outcome.reply.body.toString('utf8'), address: outcome.reply.address };
}

function isFeed(text: string): boolean {
  return /^\s*(?:<\?xml[^>]*>\s*)?(?:<!--[\s\S]*?-->\s*)*<(?:feed|rss)\b/.test(text.slice(0, 2_000));
}

const text = z
  .union([z.string(), z.number(), z.looseObject({ '#text': z.union([z.string(), z.number()]).optional() })])
  .transform((value) => String(typeof value === 'object' ? (value['#text'] ?? '') : value).trim());
const list = <T extends z.ZodType>(schema: T) =>
  z
    .union([z.array(schema), schema.transform((single) => [single])])
    .catch([] as never)
    .default([] as never);
const AtomLink = z.looseObject({ '@href': z.string().default(''), '@rel': z.string().default('alternate') });
const Media = z.looseObject({ '@duration': z.coerce.number().optional() });
const Entry = z.looseObject({
  title: text.optional(),
  link: z.union([z.string().transform((href) => [{ '@href': href, '@rel': 'alternate' }]), list(AtomLink)]).optional(),
  published: text.optional(),
  updated: text.optional(),
  pubDate: text.optional(),
  'media:group': z.looseObject({ 'media:content': list(Media) }).optional(),
  'media:content': list(Media).optional(),
});
const Feed = z.union([
  z
    .looseObject({ feed: z.looseObject({ title: text.optional(), entry: list(Entry) }) })
    .transform(({ feed }) => ({ name: feed.title ?? '', entries: feed.entry })),
  z
    .looseObject({ rss: z.looseObject({ channel: z.looseObject({ title: text.optional(), item: list(Entry) }) }) })
    .transform(({ rss }) => ({ name: rss.channel.title ?? '', entries: rss.channel.item })),
]);

function fromFeed(xml: string, feedAddress: string, address: string): ReadChannel {
  // A document type could make entities grow without end; no feed needs one.
  if (/<!DOCTYPE|<!ENTITY/i.test(xml))
    return { ok: false, reason: 'its feed holds a document type, which is not read' };
  let parsed: unknown;
  try {
    parsed = new XMLParser({ ignoreAttributes: false, attributeNamePrefix: '@', processEntities: true }).parse(xml);
  } catch (error) {
    return { ok: false, reason: `its feed cannot be read: ${error instanceof Error ? error.message : String(error)}` };
  }
  const read = Feed.safeParse(parsed);
  if (!read.success) return { ok: false, reason: 'its feed is neither Atom nor RSS' };
  const videos = read.data.entries.flatMap((entry): ListedVideo[] => {
    const href = (entry.link ?? []).find((link) => link['@rel'] === 'alternate')?.['@href'] ?? '';
    if (href === '' || !URL.canParse(href, feedAddress)) return [];
    const when = entry.published ?? entry.pubDate ?? entry.updated ?? '';
    const media = entry['media:group']?.['media:content']?.[0] ?? entry['media:content']?.[0];
    return [
      {
        address: plainAddress(new URL(href, feedAddress).href),
        title: (entry.title ?? '').slice(0, 300) || href,
        published: Number.isNaN(Date.parse(when)) ? null : when,
        seconds: media?.['@duration'] ?? null,
      },
    ];
  });
  return { ok: true, address, name: read.data.name, videos };
}

/** An address without what only says where a reader came from. */
export function plainAddress(address: string): string {
  const url = new URL(address);
  url.hash = '';
  for (const name of [...url.searchParams.keys()])
    if (/^(?:utm_\w+|fbclid|gclid|si|feature|ref|t|start)$/.test(name)) url.searchParams.delete(name);
  return url.href;
}
