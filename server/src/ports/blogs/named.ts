import type { PageHead } from '../../formats/documents/head.ts';
import { linksOf } from '../../formats/feeds/linkHeader.ts';
import type { Reply } from '../../ground/network/network.ts';
import type { ReadingRoom } from '../../ground/reading/room.ts';

/** A page, and the addresses it names by their relation, in its header (RFC 8288) or in its head. */
export interface NamedIn {
  head: PageHead;
  /** @param type what kind of thing it must be, where that is said; a header does not say it */
  named: (rel: string, type?: RegExp) => string | null;
}

/** What a page names; null when it is none. */
export async function namedIn(reader: ReadingRoom, reply: Reply): Promise<NamedIn | null> {
  const read = await reader.read('head', { bytes: reply.body, mime: reply.headers['content-type'] ?? '' });
  if (!read.ok) return null;
  const head = read.value;
  const against = (href: string, base: string) => (URL.canParse(href, base) ? new URL(href, base).href : null);
  const base = (head.base && against(head.base, reply.address)) || reply.address;
  const header = linksOf(reply.headers['link'] ?? '', reply.address);
  return {
    head,
    named: (rel, type) => {
      const above = type ? undefined : header.get(rel);
      const href = above ?? head.links.find((link) => link.rel.includes(rel) && (!type || type.test(link.type)))?.href;
      return href === undefined ? null : against(href, base);
    },
  };
}
