import { readSitemap } from '../../formats/documents/sitemap.ts';
import type { Database } from '../../ground/store/database.ts';
import type { Tools } from '../../ports/tools.ts';
import { rememberPages, type SeenPage } from './repository.ts';

const MOST_PAGES = 2_000;
const AT_ONCE = 4;

/**
 * Reads a blog's pages into its link index: addresses from the sitemap (sitemaps.org protocol 0.9), titles from the pages
 * that are not known yet.
 * @returns how many pages the index has gained, or why it could not be read
 */
export async function readLinkIndex(
  db: Database,
  ports: Pick<Tools, 'network' | 'reader'>,
  blog: { id: string; address: string },
  signal: AbortSignal,
): Promise<{ ok: true; pages: number; fresh: number } | { ok: false; reason: string }> {
  const address = new URL('sitemap.xml', blog.address.endsWith('/') ? blog.address : `${blog.address}/`).href;
  const read = await readSitemap(ports, address, signal);
  if (!read.ok) return { ok: false, reason: `its sitemap cannot be read: ${read.reason}` };
  const { origin } = new URL(blog.address);
  const addresses = read.pages
    .map((page) => page.address)
    .filter((at) => new URL(at).origin === origin)
    .slice(0, MOST_PAGES);
  const known = new Set(
    (await db.rows<{ address: string }>('SELECT address FROM link_page WHERE blog = ?', [blog.id])).map(
      (row) => row.address,
    ),
  );
  const fresh = addresses.filter((loc) => !known.has(loc));
  for (let at = 0; at < fresh.length; at += AT_ONCE) {
    const pages = await Promise.all(fresh.slice(at, at + AT_ONCE).map((loc) => titleOf(ports, loc, signal)));
    await rememberPages(
      db,
      blog.id,
      pages.filter((page) => page !== null),
    );
  }
  return { ok: true, pages: addresses.length, fresh: fresh.length };
}

async function titleOf(
  { network, reader }: Pick<Tools, 'network' | 'reader'>,
  address: string,
  signal: AbortSignal,
): Promise<SeenPage | null> {
  const outcome = await network.call({ method: 'GET', address, timeLimitMs: 10_000, maxBytes: 2_000_000, signal });
  if (outcome.kind !== 'reply' || outcome.reply.status !== 200) return null;
  const head = await reader.read('head', {
    bytes: outcome.reply.body,
    mime: outcome.reply.headers['content-type'] ?? '',
  });
  const title = head.ok ? head.value.heading || head.value.title : '';
  return title !== '' ? { address, title, article: null } : null;
}
