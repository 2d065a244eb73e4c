import { type ArticleDocument, inlineText, relinked, withLink } from '@grivo/core';
import { saveEdit } from '../articles/edits.ts';
import { getArticle, readRevision } from '../articles/repository.ts';
import { addressDigest } from '../links/pages.ts';
import { actByHand } from '../publishing/byHand.ts';
import type { OutsidePorts } from '../publishing/outside.ts';
import { PUBLICATION_COLUMNS, type PublicationRow } from '../publishing/publications.ts';
import { noteUses } from './uses.ts';

/** What became of articles that were changed at once. */
export interface Mended {
  /** Articles that were changed. */
  articles: number;
  /** Posts that show it now. */
  updated: number;
  /** Articles that could not be changed or brought to the blog, and why. */
  left: { article: string; title: string; why: string }[];
}

interface By {
  person: string;
  /** Names what is done as one sitting. */
  sitting: string;
}

/** Times links are noted at once, some tens of articles each; the rest is noted a moment later. */
const MOST_NOTED = 10;
/** Posts brought up to date side by side. */
const AT_ONCE = 4;

/**
 * Leads every link of a blog's live articles to an address elsewhere, or takes it off, and brings the change to their posts.
 * Each article keeps the revision it had.
 */
export async function mendLinks(
  ports: OutsidePorts,
  blog: string,
  { from, to }: { from: string; to: string | null },
  by: By,
  signal: AbortSignal,
): Promise<Mended> {
  const rows = await ports.ground.db.rows<{ article: string }>(
    'SELECT DISTINCT article FROM link_use WHERE blog = ? AND address_digest = ?',
    [blog, addressDigest(from)],
  );
  return changeEach(
    ports,
    blog,
    rows.map(({ article }) => article),
    (document) => relinked(document, from, to),
    by,
    signal,
  );
}

/** Links words of an older article to a newer one, and brings it to the blog. */
export async function linkForward(
  ports: OutsidePorts,
  blog: string,
  { article, block, anchor, to }: { article: string; block: string; anchor: string; to: string },
  by: By,
  signal: AbortSignal,
): Promise<Mended> {
  return changeEach(
    ports,
    blog,
    [article],
    (document) => {
      const body = document.body.map((one) => {
        if (one.id !== block || one.type !== 'paragraph') return one;
        const at = inlineText(one.content).indexOf(anchor);
        return at < 0 ? one : { ...one, content: withLink(one.content, at, anchor, { to: 'article', article: to }) };
      });
      return JSON.stringify(body) === JSON.stringify(document.body) ? document : { ...document, body };
    },
    by,
    signal,
  );
}

async function changeEach(
  ports: OutsidePorts,
  blog: string,
  articles: readonly string[],
  change: (document: ArticleDocument) => ArticleDocument,
  by: By,
  signal: AbortSignal,
): Promise<Mended> {
  const mended: Mended = { articles: 0, updated: 0, left: [] };
  const waiting = [...articles];
  const next = async (): Promise<void> => {
    for (let id = waiting.shift(); id !== undefined; id = waiting.shift()) {
      const left = signal.aborted
        ? 'there was no time left; do it again'
        : await changeOne(ports, blog, id, change, by, signal, mended);
      if (left === null) continue;
      const row = await getArticle(ports.ground.db, id);
      mended.left.push({ article: id, title: row?.title ?? '', why: left });
    }
  };
  await Promise.all(Array.from({ length: AT_ONCE }, next));
  // Whoever looks now sees the links as they are now.
  for (let n = 0; n < MOST_NOTED && (await noteUses(ports.ground.db)) > 0; n++);
  return mended;
}

/** @returns why it is as it was, or not on the blog; null when all is well */
async function changeOne(
  ports: OutsidePorts,
  blog: string,
  id: string,
  change: (document: ArticleDocument) => ArticleDocument,
  by: By,
  signal: AbortSignal,
  mended: Mended,
): Promise<string | null> {
  const { ground } = ports;
  const article = await getArticle(ground.db, id);
  if (!article?.current) return 'it is not there any more';
  const document = await readRevision(ground.db, article.current);
  const changed = change(document);
  let revision = article.current;
  if (changed !== document) {
    const edited = await saveEdit(ground, { article: id, base: article.current, document: changed, ...by });
    if (edited.kind === 'busy') return 'a step is at it just now; do it again in a minute';
    if (edited.kind === 'overtaken') return 'somebody changed it at the same moment; do it again';
    revision = edited.revision;
    mended.articles++;
  }
  const [publication] = await ground.db.rows<PublicationRow>(
    `SELECT ${PUBLICATION_COLUMNS} WHERE article = ? AND blog = ? AND state = 'live'`,
    [id, blog],
  );
  if (!publication || publication.revision === revision) return null;
  const acted = await actByHand(ports, publication, 'update', revision, signal);
  if (acted.kind === 'done') {
    mended.updated++;
    return null;
  }
  if (acted.kind === 'later') return 'the blog has it, and has not said yet whether it shows it';
  if (acted.kind === 'nothing there') return 'there is no post any more';
  return WHY[acted.failure.code] ?? `the blog did not take it: ${acted.failure.code.replace(/-/g, ' ')}`;
}

const WHY: Readonly<Record<string, string>> = {
  'changed-outside': 'somebody changed the post on the blog; settle that first',
};
