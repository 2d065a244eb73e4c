import { termsOfPage } from '@grivo/core';
import { readDocument } from '../../formats/documents/reader.ts';
import { readSitemap } from '../../formats/documents/sitemap.ts';
import type { Database } from '../../ground/store/database.ts';
import type { Tools } from '../../ports/tools.ts';
import { addressDigest, rememberPages, type SeenPage } from './pages.ts';

const AT_ONCE = 4;
/** Pages read in one go; the rest of a large blog is read in the next ones. */
const MOST_AT_ONCE = 400;
const MOST_BYTES = 3_000_000;
/** Words of a page that tell what it is about. */
const MOST_WORDS = 3_000;
const TIME_LIMIT_MS = 10_000;

/** When a blog's pages are read again: all of them read, or some still to be. */
const DAILY = 'INTERVAL 1 DAY';
const AT_ONCE_AGAIN = 'INTERVAL 1 MINUTE';
const LATER = 'INTERVAL 1 HOUR';

export type ReadPages = { ok: true; pages: number; fresh: number; left: number } | { ok: false; reason: string };

type Ports = Pick<Tools, 'network' | 'reader'>;

interface KnownPage {
  address: string;
  article: string | null;
  read_at: Date | string | null;
}

/**
 * Reads a blog's pages into its link index: addresses from the sitemap (sitemaps.org protocol 0.9), titles and texts from the
 * pages that are new or changed since. Pages the sitemap lists no more are forgotten; our own articles stay.
 */
export async function readLinkIndex(
  db: Database,
  ports: Ports,
  blog: { id: string; address: string; language: string },
  signal: AbortSignal,
): Promise<ReadPages> {
  const address = new URL('sitemap.xml', blog.address.endsWith('/') ? blog.address : `${blog.address}/`).href;
  const read = await readSitemap(ports, address, signal);
  if (!read.ok) return { ok: false, reason: `its sitemap cannot be read: ${read.reason}` };
  const { origin } = new URL(blog.address);
  // Its front page is about everything.
  const front = blog.address.replace(/\/$/, '');
  const listed = read.pages.filter(
    (page) => new URL(page.address).origin === origin && page.address.replace(/\/$/, '') !== front,
  );
  const rows = await db.rows<KnownPage>('SELECT address, article, read_at FROM link_page WHERE blog = ?', [blog.id]);
  const known = new Map(rows.map((row) => [row.address, row]));
  const fresh = listed.filter(({ address, changed }) => isNew(known.get(address), changed));
  const now = fresh.slice(0, MOST_AT_ONCE);
  for (let at = 0; at < now.length; at += AT_ONCE) {
    const some = now.slice(at, at + AT_ONCE);
    const pages = await Promise.all(some.map((page) => pageAt(ports, page.address, blog.language, signal)));
    await rememberPages(
      db,
      blog.id,
      pages.filter((page) => page !== null),
    );
  }
  // A sitemap that was read in part says nothing of what it does not list.
  if (read.unread.length === 0) {
    const there = new Set(listed.map((page) => page.address));
    const gone = rows.filter(({ address, article }) => article === null && !there.has(address));
    for (let at = 0; at < gone.length; at += 500)
      await db.run('DELETE FROM link_page WHERE blog = ? AND address_digest IN (?)', [
        blog.id,
        gone.slice(at, at + 500).map((page) => addressDigest(page.address)),
      ]);
  }
  return { ok: true, pages: listed.length, fresh: now.length, left: fresh.length - now.length };
}

/** Whether a page is to be read: one not known, never read, or changed since; our own articles are known by what we sent. */
function isNew(known: KnownPage | undefined, changed: string | null): boolean {
  if (!known) return true;
  if (known.article !== null) return false;
  if (known.read_at === null) return true;
  const moment = changed === null ? Number.NaN : Date.parse(changed);
  return moment > new Date(known.read_at).getTime();
}

async function pageAt(ports: Ports, address: string, language: string, signal: AbortSignal): Promise<SeenPage | null> {
  const { network, reader } = ports;
  const outcome = await network.call({
    method: 'GET',
    address,
    timeLimitMs: TIME_LIMIT_MS,
    maxBytes: MOST_BYTES,
    signal,
  });
  if (outcome.kind !== 'reply' || outcome.reply.status !== 200) return null;
  const { body, headers } = outcome.reply;
  const mime = headers['content-type'] ?? '';
  const head = await reader.read('head', { bytes: body, mime });
  const title = head.ok ? head.value.heading || head.value.title : '';
  if (title === '') return null;
  const text = await readDocument(
    reader,
    body,
    { mime, name: address, fetched: true },
    { language, mostWords: MOST_WORDS },
  );
  if (!text.ok) return { address, title, article: null, language: null, terms: null };
  const { paragraphs, language: tongue } = text.text;
  const headings = [...new Set(paragraphs.map(({ heading }) => heading))].filter((heading) => heading !== '');
  const terms = termsOfPage({ title, headings, text: paragraphs.map((one) => one.text).join('\n') }, tongue);
  return { address, title, article: null, language: tongue, terms };
}

const dueAgain = (db: Database, blog: string, interval: string) =>
  db.run(`UPDATE blog SET pages_due = UTC_TIMESTAMP(3) + ${interval} WHERE id = ?`, [blog]);

/** Reads the pages of a blog that was just connected; what is left of a large one is read soon after. */
export async function readAtFirst(
  db: Database,
  ports: Ports,
  blog: { id: string; address: string; language: string },
): Promise<void> {
  const read = await readLinkIndex(db, ports, blog, AbortSignal.timeout(60_000));
  if (read.ok && read.left === 0) await dueAgain(db, blog.id, DAILY);
}

/** Reads the pages of a blog whose turn it is, so that what others write there can be linked to as well. */
export async function readPagesDue(tools: Pick<Tools, 'ground' | 'network' | 'reader'>): Promise<void> {
  const { db, log } = tools.ground;
  const [blog] = await db.rows<{ id: string; address: string; language: string; way: string }>(
    'SELECT id, address, language, way FROM blog WHERE pages_due <= UTC_TIMESTAMP(3) AND archived = 0 ORDER BY pages_due LIMIT 1',
  );
  if (!blog) return;
  // Whoever is first reads.
  const ours = await db.run(
    `UPDATE blog SET pages_due = UTC_TIMESTAMP(3) + ${LATER} WHERE id = ? AND pages_due <= UTC_TIMESTAMP(3)`,
    [blog.id],
  );
  if (ours === 0 || blog.way === 'folder') return;
  const read = await readLinkIndex(db, tools, blog, AbortSignal.timeout(240_000));
  if (!read.ok) return log.info({ blog: blog.id, reason: read.reason }, 'pages not read');
  await dueAgain(db, blog.id, read.left > 0 ? AT_ONCE_AGAIN : DAILY);
}
