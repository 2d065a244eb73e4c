import { whyNot } from '../../ground/network/network.ts';
import type { Reach } from '../../ground/reading/reach.ts';
import type { PageHead } from '../documents/head.ts';
import { resolved } from '../documents/resolved.ts';

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
export async function readChannel(ports: Reach, address: string, signal: AbortSignal): Promise<ReadChannel> {
  const page = await get(ports, address, signal);
  if (!page.ok) return page;
  if (page.videos) return { ok: true, address: page.address, name: page.name, videos: page.videos };
  const link = page.head?.links.find(
    ({ rel, type }) => rel.includes('alternate') && /^application\/(?:atom|rss)\+xml$/.test(type),
  );
  const at = resolved(link?.href, page.address);
  if (at === null) return { ok: false, reason: 'the page names no feed of its videos' };
  const feed = await get(ports, at, signal);
  if (!feed.ok) return feed;
  return feed.videos
    ? { ok: true, address: page.address, name: feed.name, videos: feed.videos }
    : { ok: false, reason: `its feed cannot be read: ${feed.problem}` };
}

interface Got {
  ok: true;
  address: string;
  name: string;
  /** What it lists, where it is a feed. */
  videos: ListedVideo[] | null;
  head: PageHead | null;
  problem: string;
}

async function get(
  { network, reader }: Reach,
  address: string,
  signal: AbortSignal,
): Promise<Got | { ok: false; reason: string }> {
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
  const { body, headers, address: answered } = outcome.reply;
  const came = await reader.read('feed', { bytes: body, mime: headers['content-type'] ?? '', address: answered });
  if (!came.ok) return { ok: false, reason: came.problem };
  const read = came.value;
  if (!read.ok) return { ok: true, address: answered, name: '', videos: null, head: read.page, problem: read.problem };
  const videos = read.feed.entries.flatMap(({ link, title, published, seconds }): ListedVideo[] =>
    link === null ? [] : [{ address: plainAddress(link), title: title || link, published, seconds }],
  );
  return { ok: true, address: answered, name: read.feed.title, videos, head: null, problem: '' };
}

/** An address without what only says where a reader came from. */
export function plainAddress(address: string): string {
  const url = new URL(address);
  url.hash = '';
  for (const name of [...url.searchParams.keys()])
    if (/^(?:utm_\w+|fbclid|gclid|si|feature|ref|t|start)$/.test(name)) url.searchParams.delete(name);
  return url.href;
}
