import { gunzipSync } from 'node:zlib';
import { type Network, whyNot } from '../../ground/network/network.ts';
import type { Reach } from '../../ground/reading/reach.ts';
import { childOf, childrenOf, readXml, textIn } from '../xml/tree.ts';
import { textOf } from './kind.ts';
import { resolved } from './resolved.ts';

export interface ListedPage {
  address: string;
  changed: string | null;
}

export type ReadSitemap =
  | { ok: true; pages: ListedPage[]; unread: { address: string; reason: string }[] }
  | { ok: false; reason: string };

export type ReadMap = { ok: true; maps: string[]; pages: ListedPage[] } | { ok: false; reason: string };

const TIME_LIMIT_MS = 20_000;
const MOST_BYTES = 20_000_000;
/** What a packed sitemap may unpack to: the protocol's own limit is 50 MB. */
const MOST_UNPACKED = 60_000_000;
const MOST_MAPS = 50;
const MOST_PAGES = 50_000;

/**
 * Pages of a sitemap (sitemaps.org protocol 0.9): of an index those of all its maps, packed ones unpacked, texts of one
 * address a line too. The address of a site stands for the maps its robots.txt names, else /sitemap.xml.
 */
export async function readSitemap(ports: Reach, given: string, signal: AbortSignal): Promise<ReadSitemap> {
  const first = await mapsOf(ports.network, given, signal);
  const waiting = [...first];
  const seen = new Set<string>();
  const pages = new Map<string, string | null>();
  const unread: { address: string; reason: string }[] = [];
  let read = 0;
  while (waiting.length > 0 && pages.size < MOST_PAGES) {
    const address = waiting.shift()!;
    if (seen.has(address)) continue;
    if (seen.size >= MOST_MAPS) {
      unread.push({ address, reason: `only ${MOST_MAPS} sitemaps are read` });
      break;
    }
    seen.add(address);
    const got = await getMap(ports, address, signal);
    if (!got.ok) {
      unread.push({ address, reason: got.reason });
      continue;
    }
    read++;
    for (const map of got.maps.slice(0, MOST_MAPS + 1)) waiting.push(map);
    for (const page of got.pages) if (pages.size < MOST_PAGES) pages.set(page.address, page.changed);
  }
  if (pages.size >= MOST_PAGES)
    unread.push({ address: given, reason: `only the first ${MOST_PAGES.toLocaleString('en-GB')} pages are read` });
  if (read === 0) return { ok: false, reason: unread[0]?.reason ?? 'there is no sitemap' };
  return { ok: true, pages: [...pages].map(([address, changed]) => ({ address, changed })), unread };
}

async function mapsOf(network: Network, given: string, signal: AbortSignal): Promise<string[]> {
  const url = new URL(given);
  if (/\.(?:xml|gz|txt)$/i.test(url.pathname)) return [given];
  const robots = await network.call({
    method: 'GET',
    address: new URL('/robots.txt', url).href,
    timeLimitMs: TIME_LIMIT_MS,
    maxBytes: 500_000,
    signal,
  });
  const said =
    robots.kind === 'reply' && robots.reply.status === 200
      ? robots.reply.body
          .toString('utf8')
          .split(/\r?\n/)
          .flatMap((line) => resolved(/^sitemap:\s*(\S+)/i.exec(line.trim())?.[1], url.href) ?? [])
      : [];
  const own = new URL('sitemap.xml', given.endsWith('/') ? given : `${given}/`).href;
  return said.length > 0 ? said : [...new Set([own, new URL('/sitemap.xml', url).href])];
}

async function getMap({ network, reader }: Reach, address: string, signal: AbortSignal): Promise<ReadMap> {
  const outcome = await network.call({
    method: 'GET',
    address,
    timeLimitMs: TIME_LIMIT_MS,
    maxBytes: MOST_BYTES,
    signal,
  });
  if (outcome.kind !== 'reply') return { ok: false, reason: whyNot(outcome) };
  if (outcome.reply.status !== 200) return { ok: false, reason: `it answers ${outcome.reply.status}` };
  const read = await reader.read('map', {
    bytes: outcome.reply.body,
    mime: outcome.reply.headers['content-type'] ?? '',
    address: outcome.reply.address,
  });
  return read.ok ? read.value : { ok: false, reason: read.problem };
}

/** A map as it was sent, packed or not. */
export function mapIn({ bytes, mime, address }: { bytes: Uint8Array; mime: string; address: string }): ReadMap {
  if (bytes[0] !== 0x1f || bytes[1] !== 0x8b) return readMap(textOf(bytes, mime), address);
  try {
    return readMap(textOf(gunzipSync(bytes, { maxOutputLength: MOST_UNPACKED }), mime), address);
  } catch (error) {
    const { code } = error as NodeJS.ErrnoException;
    if (code === undefined) throw error;
    return {
      ok: false,
      reason:
        code === 'ERR_BUFFER_TOO_LARGE'
          ? `unpacked it is larger than ${MOST_UNPACKED / 1_000_000} MB`
          : 'it is packed (gzip) and broken',
    };
  }
}

export function readMap(text: string, address: string): ReadMap {
  const begun = text.replace(/^[\s\ufeff]+/, '');
  if (!begun.startsWith('<')) {
    const pages = begun.split(/\r?\n/).flatMap((line) => {
      const at = /^https?:\/\/\S+$/.test(line.trim()) ? resolved(line, address) : null;
      return at === null ? [] : [{ address: at, changed: null }];
    });
    return pages.length > 0
      ? { ok: true, maps: [], pages: pages.slice(0, MOST_PAGES) }
      : { ok: false, reason: 'it is not a sitemap' };
  }
  const read = readXml(begun);
  if (!read.ok) return { ok: false, reason: read.problem };
  const { root } = read;
  if (root.name !== 'urlset' && root.name !== 'sitemapindex')
    return { ok: false, reason: root.name === 'html' ? 'it is a web page, not a sitemap' : 'it is not a sitemap' };
  const located = childrenOf(root, root.name === 'urlset' ? 'url' : 'sitemap').flatMap((one) => {
    const at = resolved(textIn(childOf(one, 'loc')), address);
    if (at === null) return [];
    const changed = textIn(childOf(one, 'lastmod'));
    return [{ address: at, changed: Number.isNaN(Date.parse(changed)) ? null : changed }];
  });
  return root.name === 'urlset'
    ? { ok: true, maps: [], pages: located.slice(0, MOST_PAGES) }
    : { ok: true, maps: located.slice(0, MOST_PAGES).map((one) => one.address), pages: [] };
}
