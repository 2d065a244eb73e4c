import { parseHTML } from 'linkedom';
import { readFeed } from '../feeds/feed.ts';
import { type Network, whyNot } from '../network/network.ts';

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
  if (outcome.kind !== 'reply') return { ok: false, reason: whyNot(outcome) };
  if (outcome.reply.status === 404) return { ok: false, reason: 'there is no such channel' };
  if (outcome.reply.status !== 200) return { ok: false, reason: `it answers ${outcome.reply.status}` };
  return { ok: true, body: outcome.reply.body.toString('utf8'), address: outcome.reply.address };
}

function isFeed(text: string): boolean {
  return /^\s*(?:<\?xml[^>]*>\s*)?(?:<!--[\s\S]*?-->\s*)*<(?:feed|rss)\b/.test(text.slice(0, 2_000));
}

function fromFeed(xml: string, feedAddress: string, address: string): ReadChannel {
  const read = readFeed(xml, feedAddress);
  if (!read.ok) return { ok: false, reason: `its feed cannot be read: ${read.problem}` };
  const videos = read.feed.entries.flatMap(({ link, title, published, seconds }): ListedVideo[] =>
    link === null ? [] : [{ address: plainAddress(link), title: title || link, published, seconds }],
  );
  return { ok: true, address, name: read.feed.title, videos };
}

/** An address without what only says where a reader came from. */
export function plainAddress(address: string): string {
  const url = new URL(address);
  url.hash = '';
  for (const name of [...url.searchParams.keys()])
    if (/^(?:utm_\w+|fbclid|gclid|si|feature|ref|t|start)$/.test(name)) url.searchParams.delete(name);
  return url.href;
}
