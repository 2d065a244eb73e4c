import { createHash } from 'node:crypto';
import {
  type ArticleDocument,
  blocksHtml,
  blocksMarkdown,
  mergeArticles,
  type OutsideChoice,
  type OutsidePlace,
  settledBody,
} from '@grivo/core';
import type { Ground } from '../../ground/ground.ts';
import type { Sql } from '../../ground/store/database.ts';
import { tellChange } from '../../ground/store/event.ts';
import type { BlogTarget, PostThere } from '../../ports/blogs/blog.ts';
import type { Result } from '../../ports/outcome/outcome.ts';
import type { Tools } from '../../ports/tools.ts';
import { sentFiles } from '../articles/inTexts.ts';
import { readRevision } from '../articles/repository.ts';
import { blogTarget, listBlogs } from '../blogs/repository.ts';
import { isSettled } from './editions.ts';
import { outWrites } from './out.ts';
import { type PublishingPorts, readersResolve } from './post.ts';
import { isOut, type Outside, PUBLICATION_COLUMNS, type PublicationRow, placeOf } from './publications.ts';

export type OutsidePorts = PublishingPorts & Pick<Tools, 'reader'>;

/** How long what was looked at is not looked at again by itself. */
const AGAIN_HOURS = 6;
/** A draft may be passed by the people of the blog at any moment. */
const DRAFT_AGAIN_HOURS = 1;
/** Posts of each blog that are looked at in one go: with a go every five seconds, 13,000 in those six hours. */
const POSTS_AT_ONCE = 3;
const BLOGS_AT_ONCE = 8;
/** Letters of a post that are looked at; the longest article has a tenth of it. */
const LONGEST = 2_000_000;

/** What a post says, in short: two that say the same have the same. */
export function digestOf({ name, html, markdown }: Pick<PostThere, 'name' | 'html' | 'markdown'>): string {
  return createHash('sha256')
    .update(`${name}\0${(markdown ?? html ?? '').trim()}`)
    .digest('hex');
}

/** What stands on the blog beside what was sent. */
export interface Beside {
  /** Null when there is no post any more. */
  there: PostThere | null;
  digest: string;
  document: ArticleDocument;
  places: OutsidePlace[];
}

/** Whether it says something else than what was sent. */
const differs = ({ there, places, document }: Beside): boolean =>
  there === null || there.name.trim() !== document.title.trim() || places.some(({ changed }) => changed);

/** Reads a post where it stands and sets it beside what was sent. */
export async function besideOurs(
  ports: OutsidePorts,
  blog: BlogTarget,
  publication: PublicationRow,
  signal: AbortSignal,
): Promise<Result<Beside>> {
  const at = placeOf(publication);
  if (at === null || publication.revision === null) throw new Error(`publication ${publication.id} has no post`);
  const port = ports.blogs(blog);
  const read = await port.read(blog, at, signal);
  if (!read.ok) return read;
  const there = read.value;
  const document = await readRevision(ports.ground.db, publication.revision);
  if (there === null) return { ok: true, value: { there, digest: 'gone', document, places: [] } };
  const reads = there.markdown === undefined ? 'HTML' : 'Markdown';
  const hasLead = port.can(blog).has('lead picture');
  const sent = await sentBlocks(ports, blog, publication.id, { document, reads, hasLead });
  const own = (await listBlogs(ports.ground.db)).map(({ address }) => address.replace(/\/$/, ''));
  const text = there.markdown ?? there.html ?? '';
  const places =
    text.length > LONGEST
      ? { ok: false as const, problem: 'it is far longer than any article' }
      : await ports.reader.read('beside', { sent, there: text, reads, own });
  if (!places.ok)
    return {
      ok: false,
      failure: {
        code: 'reply-unusable',
        service: blog.id,
        problem: `what stands there cannot be compared: ${places.problem}`,
      },
    };
  return { ok: true, value: { there, digest: digestOf(there), document, places: places.value } };
}

/** Each block of ours as it was sent, the lead picture where it stood in the text. */
async function sentBlocks(
  ports: OutsidePorts,
  blog: BlogTarget,
  publication: string,
  { document, reads, hasLead }: { document: ArticleDocument; reads: 'HTML' | 'Markdown'; hasLead: boolean },
): Promise<{ id: string; text: string }[]> {
  const files = await sentFiles(ports.ground.db, document, blog.id);
  const resolve = await readersResolve(ports, blog, publication, { document, files });
  const body = document.body.filter((block) => !(hasLead && block.type === 'figure' && block.lead));
  return reads === 'HTML' ? blocksHtml({ body }, resolve) : blocksMarkdown({ body }, resolve);
}

/**
 * Looks at a post again and keeps what was seen: that it is as it was sent or settled, or what somebody else made of it.
 * @returns what stands there beside ours
 */
export async function lookOutside(
  ports: OutsidePorts,
  publication: PublicationRow,
  signal: AbortSignal,
): Promise<Result<Beside> | null> {
  const isThere = publication.state === 'live' || publication.state === 'draft';
  const blog = isThere ? await blogTarget(ports.ground.db, publication.blog) : null;
  if (!blog || placeOf(publication) === null || publication.revision === null) return null;
  const beside = await besideOurs(ports, blog, publication, signal);
  if (!beside.ok) return beside;
  const { digest } = beside.value;
  const isOurs =
    publication.seen === digest ||
    !differs(beside.value) ||
    // What was sent and is not known to have come may be there all the same.
    (await isOnItsWay(ports, blog, publication, signal));
  const outside: Outside | null = isOurs
    ? null
    : { kind: beside.value.there ? 'changed' : 'gone', digest, at: new Date(ports.ground.now()).toISOString() };
  const known = publication.outside?.digest === outside?.digest;
  await ports.ground.db.run(
    `UPDATE publication SET seen = IF(?, ?, seen), outside = ?, compare_at = UTC_TIMESTAMP(3) + INTERVAL ? HOUR WHERE id = ? AND edition = ?`,
    [
      outside === null && isSettled(publication),
      digest,
      outside === null ? null : JSON.stringify(known ? publication.outside : outside),
      publication.state === 'draft' ? DRAFT_AGAIN_HOURS : AGAIN_HOURS,
      publication.id,
      publication.edition,
    ],
  );
  if (beside.value.there?.status === 'published' && publication.state === 'draft' && isOut(publication))
    await passedThere(ports.ground, publication, beside.value);
  // Told by the blog itself, where it could not be asked when the post was made.
  const address = beside.value.there?.address ?? publication.address;
  if (address !== publication.address)
    await ports.ground.db.run('UPDATE publication SET address = ? WHERE id = ? AND edition = ?', [
      address,
      publication.id,
      publication.edition,
    ]);
  if (!known) await tellChange(ports.ground.db, ports.ground, 'article', publication.article);
  return beside;
}

/** A draft, or what waited for the blog’s own review, was turned live there: it is out from when that was seen. */
async function passedThere(ground: Ground, publication: PublicationRow, { there, document }: Beside): Promise<void> {
  const { handle, address } = there!;
  const desk = ground.desk.now();
  await ground.db.transaction(
    async (sql) => {
      await sql.run("UPDATE publication SET as_ = 'live', out_desk = ? WHERE id = ? AND edition = ?", [
        desk,
        publication.id,
        publication.edition,
      ]);
      for (const { text, parameters } of outWrites(ground, publication, {
        at: { handle, address },
        as: 'live',
        desk,
        document,
      }))
        await sql.run(text, parameters);
    },
    async () => undefined,
  );
}

/** Whether a post says what an update that is under way brings. */
async function isOnItsWay(
  ports: OutsidePorts,
  blog: BlogTarget,
  publication: PublicationRow,
  signal: AbortSignal,
): Promise<boolean> {
  const { wanted } = publication;
  if (wanted === null || isSettled(publication)) return false;
  const beside = await besideOurs(ports, blog, { ...publication, revision: wanted }, signal);
  return beside.ok && !differs(beside.value);
}

/**
 * Looks at a few posts of every blog whose turn it is: what was changed on blogs is found without anybody asking. One after
 * the other on each blog, so that none has to answer more than one look at a time; a blog that is slow holds up no other.
 */
export async function compareOutside(ports: OutsidePorts): Promise<void> {
  const blogs = (await ports.ground.db.rows<{ id: string }>('SELECT id FROM blog ORDER BY id')).values();
  const some = Array.from({ length: BLOGS_AT_ONCE }, async () => {
    for (const { id } of blogs) await compareOn(ports, id);
  });
  await Promise.all(some);
}

async function compareOn(ports: OutsidePorts, blog: string): Promise<void> {
  const { db } = ports.ground;
  const due = (state: 'live' | 'draft') =>
    db.rows<PublicationRow>(
      `SELECT ${PUBLICATION_COLUMNS} WHERE blog = ? AND state = ? AND compare_at <= UTC_TIMESTAMP(3) ORDER BY compare_at LIMIT ${POSTS_AT_ONCE}`,
      [blog, state],
    );
  for (const publication of [...(await due('live')), ...(await due('draft'))]) {
    // Whoever is first looks; one that does not answer is looked at later, as all others are.
    const ours = await db.run(
      'UPDATE publication SET compare_at = UTC_TIMESTAMP(3) + INTERVAL 1 HOUR WHERE id = ? AND compare_at <= UTC_TIMESTAMP(3)',
      [publication.id],
    );
    if (ours === 1 && isSettled(publication)) await lookOutside(ports, publication, AbortSignal.timeout(30_000));
  }
}

/** The text that comes of what was chosen of a post: ours with theirs, and what was changed here meanwhile. */
export function chosenText(
  { document, there, places }: Beside,
  { title, choices }: { title: 'theirs' | 'ours'; choices: readonly OutsideChoice[] },
  newest: ArticleDocument,
): ArticleDocument {
  const chosen: ArticleDocument = {
    ...document,
    title: title === 'theirs' && there ? there.name : document.title,
    body: settledBody(document.body, places, choices),
  };
  return mergeArticles(document, chosen, newest).article;
}

/** What stands on the blog is settled: it is what is meant to be there. */
export async function settleSeen(
  { ground }: OutsidePorts,
  publication: PublicationRow,
  { revision, digest }: { revision: string; digest: string },
): Promise<void> {
  await ground.db.run(
    'UPDATE publication SET revision = ?, seen = ?, outside = NULL, rev = rev + 1 WHERE id = ? AND edition = ?',
    [revision, digest, publication.id, publication.edition],
  );
  await tellChange(ground.db, ground, 'article', publication.article);
}

/** Posts of a blog that somebody changed there, the longest known first. */
export async function outsideOf(
  sql: Sql,
  blog: string,
): Promise<{ publication: string; article: string; title: string; kind: 'changed' | 'gone'; at: string }[]> {
  return sql.rows(
    `SELECT p.id AS publication, p.article, a.title, JSON_VALUE(p.outside, '$.kind') AS kind, p.outside_at AS at
     FROM publication p JOIN article a ON a.id = p.article WHERE p.outside_at IS NOT NULL AND p.blog = ? ORDER BY p.outside_at LIMIT 200`,
    [blog],
  );
}
