import { type FoundFeed, feedsAt } from '../../formats/feeds/find.ts';
import type { Tools } from '../../ports/tools.ts';

/** Sites that are looked at when a subject is given. */
const MOST_SITES = 8;

/** Feeds by an address, or by a subject: those of the sites pages on it lie on. */
export async function findFeeds(
  ports: Pick<Tools, 'network' | 'reader' | 'lookUp' | 'services'>,
  text: string,
  signal: AbortSignal,
): Promise<{ ok: true; feeds: FoundFeed[] } | { ok: false; reason: string; mend: string }> {
  const { lookUp, services } = ports;
  const given = text.trim();
  const isAddress = /^https?:\/\//i.test(given) || (/^[\w.-]+\.[a-z]{2,}(?:\/\S*)?$/i.test(given) && !/\s/.test(given));
  if (isAddress) {
    const address = /^https?:/i.test(given) ? given : `https://${given}`;
    if (!URL.canParse(address)) return { ok: false, reason: 'it is not an address', mend: 'Write it as https://….' };
    const found = await feedsAt(ports, address, signal);
    return found.ok
      ? found
      : { ...found, mend: 'Give the address of the feed itself, or of another page of the site.' };
  }
  const service = services.standard('look-up');
  if (!service)
    return { ok: false, reason: 'there is no look-up to ask', mend: 'Connect one under Settings, or give an address.' };
  const pages = await lookUp.find(
    service,
    { subject: given, pages: 20, language: 'en', country: null, since: null },
    signal,
  );
  if (!pages.ok) return { ok: false, reason: 'the look-up did not answer', mend: 'Test it under Settings.' };
  const sites = [...new Map(pages.value.map(({ address }) => [new URL('.', address).href, address])).values()];
  const feeds = new Map<string, FoundFeed>();
  for (const page of sites.slice(0, MOST_SITES)) {
    const found = await feedsAt(ports, page, signal);
    if (found.ok) for (const feed of found.feeds) feeds.set(feed.address, feed);
  }
  return feeds.size > 0
    ? { ok: true, feeds: [...feeds.values()] }
    : { ok: false, reason: 'no site on it has a feed', mend: 'Word it otherwise, or give an address.' };
}
