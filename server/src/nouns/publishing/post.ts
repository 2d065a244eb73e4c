import { type ArticleDocument, articleHtml, articleMarkdown, structuredData } from '@grivo/core';
import { fileAbout, fileBody } from '../../ground/files/repository.ts';
import type { Ground } from '../../ground/ground.ts';
import type { Sql } from '../../ground/store/database.ts';
import { good } from '../../ports/adapters/port.ts';
import type { BlogTarget, BlogWays, Post } from '../../ports/blogs/blog.ts';
import { type Doing, type Done, effect } from '../../ports/intents/effect.ts';
import { filesShown } from '../articles/charts.ts';
import { uploadKey } from '../articles/inTexts.ts';
import { resolverFor } from '../articles/resolver.ts';
import { type CountingDoor, countedOn } from '../clicks/door.ts';
import { markOf, type PublicationRow } from './publications.ts';

/** What publishing works with. */
export interface PublishingPorts extends CountingDoor {
  ground: Ground;
  blogs: BlogWays;
}

/** Sends the pictures of an article to a blog, each once. */
export async function sendPictures(
  { ground, blogs }: PublishingPorts,
  doing: Doing,
  blog: BlogTarget,
  document: ArticleDocument,
): Promise<Done<Map<string, string>>> {
  const sent = new Map<string, string>();
  for (const file of await filesShown(ground.db, document)) {
    const about = await fileAbout(ground.db, file);
    if (!about) throw new Error(`file ${file} is gone`);
    const done = await effect<string>(ground, doing, {
      key: uploadKey(blog.id, file),
      kind: 'upload',
      service: blog.id,
      timeLimitMs: blog.timeLimitMs,
      call: async () =>
        blogs(blog).upload(
          blog,
          {
            bytes: await fileBody(ground.db, file),
            mime: about.mime,
            name: `${document.slug || 'picture'}.${about.mime.split('/')[1]}`,
          },
          doing.signal,
        ),
      // No way to a blog has one to ask for a file; sending it again leaves an unused copy at worst.
      find: async () => good(null),
    });
    if (done.kind !== 'done') return done;
    sent.set(file, done.value);
  }
  return { kind: 'done', value: sent };
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
  const resolve = {
    ...(await resolverFor(sql, document, (digest) => files.get(digest) ?? '')),
    counted: await countedOn(sql, ports, blog, publication.id),
  };
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
