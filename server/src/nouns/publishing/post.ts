import { type ArticleDocument, articleHtml, articleMarkdown } from '@grivo/core';
import { fileAbout, fileBody } from '../../ground/files/repository.ts';
import type { Ground } from '../../ground/ground.ts';
import type { Sql } from '../../ground/store/database.ts';
import { good } from '../../ports/adapters/port.ts';
import type { BlogTarget, BlogWays, Post } from '../../ports/blogs/blog.ts';
import { type Doing, type Done, effect } from '../../ports/intents/effect.ts';
import { filesShown } from '../articles/charts.ts';
import { uploadKey } from '../articles/inTexts.ts';
import { resolverFor } from '../articles/resolver.ts';
import { markOf, type PublicationRow } from './publications.ts';

/** What publishing works with. */
export interface PublishingPorts {
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
  sql: Sql,
  publication: PublicationRow,
  document: ArticleDocument,
  files: ReadonlyMap<string, string>,
  categories: readonly string[],
): Promise<Post> {
  const lead = document.body.find((block) => block.type === 'figure' && block.lead);
  const body = document.body.filter((block) => block !== lead);
  const resolve = await resolverFor(sql, document, (digest) => files.get(digest) ?? '');
  const key = markOf(publication);
  return {
    key,
    name: document.title,
    markdown: articleMarkdown({ body }, resolve),
    language: document.language,
    author: null,
    html: articleHtml({ ...document, body }, resolve),
    summary: document.description,
    slug: `${document.slug || 'article'}-${key}`,
    categories: [...categories],
    photo: lead?.type === 'figure' ? { address: files.get(lead.file) ?? '', alternative: lead.alternative } : null,
  };
}
