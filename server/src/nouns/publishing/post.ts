import {
  type ArticleDocument,
  articleHtml,
  articleMarkdown,
  type PictureCopy,
  type Resolve,
  structuredData,
} from '@grivo/core';
import { fileAbout, fileBody } from '../../ground/files/repository.ts';
import type { Ground } from '../../ground/ground.ts';
import type { Sql } from '../../ground/store/database.ts';
import { good } from '../../ports/adapters/port.ts';
import { type AtOnce, CALLS_AT_ONCE } from '../../ports/blogs/atOnce.ts';
import type { BlogTarget, BlogWays, Post } from '../../ports/blogs/blog.ts';
import { type Doing, type Done, effect, type Turn } from '../../ports/intents/effect.ts';
import { filesShown } from '../articles/charts.ts';
import { uploadKey } from '../articles/inTexts.ts';
import { resolverFor } from '../articles/resolver.ts';
import { type CountingDoor, countedOn } from '../clicks/door.ts';
import { copiesDue, copiesOf, makeCopies } from '../pictures/sizes.ts';
import { markOf, type PublicationRow } from './publications.ts';

/** What publishing works with. */
export interface PublishingPorts extends CountingDoor {
  ground: Ground;
  blogs: BlogWays;
  posting: AtOnce;
}

/** Calls made to a blog at the same time. */
export const callsAtOnce = ({ settings }: Pick<BlogTarget, 'settings'>): number =>
  settings.callsAtOnce ?? CALLS_AT_ONCE;

/** When it is the turn of a call to a blog: so many at the same time as the blog takes. */
export const turnAt =
  ({ posting }: Pick<PublishingPorts, 'posting'>, blog: BlogTarget): Turn =>
  (act, first) =>
    posting.do(blog.id, callsAtOnce(blog), act, first);

/**
 * Sends the pictures of an article to a blog, each once, and their copies in other widths where it takes those. A copy that
 * it refuses, as of a form it does not know, is done without.
 * @returns where each is now, by its digest
 */
export async function sendPictures(
  ports: PublishingPorts,
  doing: Doing,
  blog: BlogTarget,
  document: ArticleDocument,
): Promise<Done<Map<string, string>>> {
  const { db } = ports.ground;
  const sent = new Map<string, string>();
  const slug = document.slug || 'picture';
  const files = await filesShown(db, document);
  for (const file of files) {
    const done = await sendFile(ports, doing, blog, file, slug);
    if (done.kind !== 'done') return done;
    sent.set(file, done.value);
  }
  if (!takesCopies(blog)) return { kind: 'done', value: sent };
  const figures = document.body.flatMap((block) => (block.type === 'figure' ? block.file : []));
  for (const file of figures) await makeCopies(db, file, 'webp');
  await copiesDue(db, figures);
  for (const { copy, width } of await copiesOf(db, figures)) {
    if (sent.has(copy)) continue;
    const done = await sendFile(ports, doing, blog, copy, `${slug}-${width}`);
    if (done.kind === 'done') sent.set(copy, done.value);
    else if (done.kind !== 'failed') return done;
  }
  return { kind: 'done', value: sent };
}

/** Whether a blog is sent pictures in several widths: its owner says so, and it is sent HTML, which alone can name them. */
const takesCopies = ({ way, settings }: BlogTarget): boolean =>
  settings.pictures === 'several' && !(way === 'folder' && settings.folder?.form !== 'HTML');

async function sendFile(
  ports: PublishingPorts,
  doing: Doing,
  blog: BlogTarget,
  file: string,
  name: string,
): Promise<Done<string>> {
  const { ground, blogs } = ports;
  const about = await fileAbout(ground.db, file);
  if (!about) throw new Error(`file ${file} is gone`);
  return effect<string>(ground, doing, {
    key: uploadKey(blog.id, file),
    kind: 'upload',
    service: blog.id,
    timeLimitMs: blog.timeLimitMs,
    turn: turnAt(ports, blog),
    call: async () =>
      blogs(blog).upload(
        blog,
        { bytes: await fileBody(ground.db, file), mime: about.mime, name: `${name}.${about.mime.split('/')[1]}` },
        doing.signal,
      ),
    // No way to a blog has one to ask for a file; sending it again leaves an unused copy at worst.
    find: async () => good(null),
  });
}

/**
 * How what an article shows is found by the readers of a blog.
 * @param files where its pictures and their copies are there, by their digests
 */
export async function readersResolve(
  ports: Pick<PublishingPorts, 'ground' | keyof CountingDoor>,
  blog: BlogTarget,
  publication: string,
  { document, files }: { document: ArticleDocument; files: ReadonlyMap<string, string> },
): Promise<Resolve> {
  const { db } = ports.ground;
  const copies = new Map<string, PictureCopy[]>();
  if (takesCopies(blog))
    for (const { file, form, width, copy } of await copiesOf(db, await filesShown(db, document))) {
      const address = files.get(copy);
      if (address !== undefined) copies.set(file, [...(copies.get(file) ?? []), { form, width, address }]);
    }
  return {
    ...(await resolverFor(db, document, (digest) => files.get(digest) ?? '')),
    copies: (digest) => copies.get(digest) ?? [],
    counted: await countedOn(db, ports, blog, publication),
  };
}

/** An article as a blog is sent it. Its slug holds the mark by which the post is found again. */
export async function postOf(
  ports: PublishingPorts,
  blog: BlogTarget,
  publication: PublicationRow,
  { document, files }: { document: ArticleDocument; files: ReadonlyMap<string, string> },
): Promise<Post> {
  const sql = ports.ground.db;
  const { categories, author, carried } = publication;
  const lead = document.body.find((block) => block.type === 'figure' && block.lead);
  const body = document.body.filter((block) => block !== lead);
  const resolve = await readersResolve(ports, blog, publication.id, { document, files });
  const key = markOf(publication);
  return {
    key,
    name: document.title,
    markdown: articleMarkdown({ body }, resolve),
    language: document.language,
    author,
    ...(carried ?? { shape: 'article', replies: null, properties: {} }),
    ...(await elsewhere(sql, publication)),
    structured: structuredData(document, { author, picture: (file) => files.get(file) ?? null }),
    html: articleHtml({ ...document, body }, resolve),
    summary: document.description,
    slug: `${document.slug || 'article'}-${key}`,
    categories: [...(categories ?? [])],
    photo: lead?.type === 'figure' ? { address: files.get(lead.file) ?? '', alternative: lead.alternative } : null,
  };
}

/**
 * Where else an article is live: the blog it stood on first, when that is another one, and its siblings, which the same
 * brief made in other languages.
 */
async function elsewhere(
  sql: Sql,
  { id, article }: Pick<PublicationRow, 'id' | 'article'>,
): Promise<Pick<Post, 'canonical' | 'siblings'>> {
  const [first] = await sql.rows<{ id: string; address: string }>(
    "SELECT id, address FROM publication WHERE article = ? AND state = 'live' AND as_ = 'live' ORDER BY out_desk, id LIMIT 1",
    [article],
  );
  const siblings = await sql.rows<{ language: string; address: string }>(
    `SELECT s.language, MIN(p.address) AS address FROM article a JOIN article s ON s.brief = a.brief AND s.id <> a.id AND s.language <> a.language
     JOIN publication p ON p.article = s.id WHERE a.id = ? AND p.state = 'live' AND p.as_ = 'live' GROUP BY s.language ORDER BY s.language`,
    [article],
  );
  return { canonical: first && first.id !== id ? first.address : null, siblings };
}
