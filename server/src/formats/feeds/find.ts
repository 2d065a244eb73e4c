import type { Sketch } from '@grivo/core';
import { whyNot } from '../../ground/network/network.ts';
import type { Reach } from '../../ground/reading/reach.ts';
import type { PageHead } from '../documents/head.ts';
import { resolved } from '../documents/resolved.ts';
import type { FoundEntry } from './entries.ts';
import type { Feed } from './entry.ts';
import { linksOf } from './linkHeader.ts';
import type { FeedAsked } from './read.ts';

/** What a server calls the state of a feed, so that it can be asked whether there is another (RFC 9110, section 13). */
export interface FeedState {
  etag: string;
  modified: string;
}

export type GotFeed =
  | {
      ok: true;
      address: string;
      feed: Feed;
      /** Its entries as items, where they were asked for. */
      found: (FoundEntry & { sketch: Sketch | null })[];
      hub: string | null;
      self: string;
      state: FeedState;
    }
  | { ok: false; reason: string; page: { head: PageHead; address: string } | null };

const TIME_LIMIT_MS = 20_000;
const MOST_BYTES = 8_000_000;
const ACCEPT =
  'application/atom+xml, application/rss+xml, application/feed+json, application/xml;q=0.9, application/json;q=0.8, text/html;q=0.7, */*;q=0.5';

/**
 * The feed at an address, or that it is as it was; of a web page there, the page, so that the feed it names can be found.
 * @param since the state it was in when it was read last
 * @param items its entries are wanted as items
 */
export async function getFeedSince(
  { network, reader }: Reach,
  address: string,
  signal: AbortSignal,
  since: FeedState | null,
  items?: FeedAsked['items'],
): Promise<GotFeed | 'unchanged'> {
  const outcome = await network.call({
    method: 'GET',
    address,
    timeLimitMs: TIME_LIMIT_MS,
    maxBytes: MOST_BYTES,
    headers: {
      accept: ACCEPT,
      ...(since?.etag ? { 'if-none-match': since.etag } : {}),
      ...(since?.modified ? { 'if-modified-since': since.modified } : {}),
    },
    signal,
  });
  const bad = (reason: string): GotFeed => ({ ok: false, reason, page: null });
  if (outcome.kind !== 'reply') return bad(whyNot(outcome));
  const { status, body, headers, address: answered } = outcome.reply;
  if (status === 304 && since) return 'unchanged';
  if (status !== 200) return bad(`it answers ${status}`);
  const came = await reader.read('feed', {
    bytes: body,
    mime: headers['content-type'] ?? '',
    address: answered,
    ...(items ? { items } : {}),
  });
  if (!came.ok) return bad(came.problem);
  const read = came.value;
  if (read.ok) {
    const links = linksOf(headers['link'] ?? '', answered);
    return {
      ok: true,
      address: answered,
      feed: read.feed,
      found: read.found,
      hub: links.get('hub') ?? read.feed.hub,
      self: links.get('self') ?? read.feed.self ?? answered,
      state: { etag: headers['etag'] ?? '', modified: headers['last-modified'] ?? '' },
    };
  }
  return {
    ok: false,
    reason: read.problem,
    page: read.page && { head: read.page, address: answered },
  };
}

/** The feed at an address, whatever was read before. */
export async function getFeed(
  ports: Reach,
  address: string,
  signal: AbortSignal,
  items?: FeedAsked['items'],
): Promise<GotFeed> {
  const got = await getFeedSince(ports, address, signal, null, items);
  return got === 'unchanged' ? { ok: false, reason: 'it answers 304', page: null } : got;
}

/** Where sites keep feeds they do not name. */
const USUAL = ['feed', 'feed.xml', 'rss.xml', 'atom.xml', 'index.xml', 'feed.json', 'rss', 'feed.atom'];

const FEED_TYPES = /^(?:application\/(?:rss|atom|rdf)\+xml|application\/feed\+json|application\/json)$/i;

/** Addresses of feeds a page names. */
export function namedFeeds(head: PageHead, address: string): string[] {
  const base = resolved(head.base, address) ?? address;
  return [
    ...new Set(
      head.links.flatMap(({ rel, type, href }) => {
        const at = rel.includes('alternate') && FEED_TYPES.test(type) ? resolved(href, base) : null;
        return at === null ? [] : [at];
      }),
    ),
  ].slice(0, 8);
}

export interface FoundFeed {
  address: string;
  feed: Feed;
  found: (FoundEntry & { sketch: Sketch | null })[];
}

/** The feeds of a site from its address: the one that is there, else those its page names, else where such things are. */
export async function feedsAt(
  ports: Reach,
  given: string,
  signal: AbortSignal,
  items?: FeedAsked['items'],
): Promise<{ ok: true; feeds: FoundFeed[] } | { ok: false; reason: string }> {
  const got = await getFeed(ports, given, signal, items);
  if (got.ok) return { ok: true, feeds: [{ address: got.address, feed: got.feed, found: got.found }] };
  if (!got.page) return { ok: false, reason: got.reason };
  const { head, address } = got.page;
  const named = namedFeeds(head, address);
  const tried = named.length > 0 ? named : USUAL.map((path) => new URL(`/${path}`, address).href);
  const feeds: FoundFeed[] = [];
  for (const one of tried) {
    const at = await getFeed(ports, one, signal, items);
    if (at.ok && !feeds.some((feed) => feed.address === at.address))
      feeds.push({ address: at.address, feed: at.feed, found: at.found });
    // One that was guessed is enough.
    if (at.ok && named.length === 0) break;
  }
  return feeds.length > 0
    ? { ok: true, feeds }
    : { ok: false, reason: named.length > 0 ? 'the feed its page names cannot be read' : 'its page names no feed' };
}
