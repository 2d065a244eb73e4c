import {
  type ArticleDocument,
  type ArticleFieldName,
  articleHtml,
  articleMarkdown,
  articleText,
  articleWords,
  MAY_BRING,
  templateFields,
} from '@grivo/core';
import { z } from 'zod';
import type { Sql } from '../../ground/store/database.ts';
import { filesShown } from './charts.ts';
import { newestOf } from './edits.ts';
import { addressesOf, readRevision } from './repository.ts';
import { resolverFor } from './resolver.ts';

const Article = z.object({ id: z.string(), revision: z.string() });
const ABSENT = Object.fromEntries(MAY_BRING.map((name) => [name, null]));

/**
 * The fields as texts can speak of them: what an item need not bring along is empty where it does not, and of the article
 * what is said of it is read.
 */
export async function fieldsInTexts(
  sql: Sql,
  fields: Readonly<Record<string, unknown>>,
  texts: readonly string[],
): Promise<Record<string, unknown>> {
  const all = { ...ABSENT, ...fields };
  const article = Article.safeParse(fields['article']).data;
  return article && texts.some(speaksOfArticle)
    ? { ...all, article: { ...article, ...(await articleInTexts(sql, article)) } }
    : all;
}

function speaksOfArticle(text: string): boolean {
  if (!text.includes('article')) return false;
  const read = templateFields(text);
  return read.ok && read.fields.includes('article');
}

async function articleInTexts(
  sql: Sql,
  { id, revision }: z.infer<typeof Article>,
): Promise<Record<ArticleFieldName, unknown>> {
  const document = await readRevision(sql, (await newestOf(sql, { id, revision, words: 0 })).revision);
  const files = await sentFiles(sql, document);
  const resolve = await resolverFor(sql, document, (digest) => files.get(digest) ?? '');
  const keyPoints = document.body.find((block) => block.type === 'key points');
  return {
    title: document.title,
    description: document.description,
    slug: document.slug,
    keyPhrase: document.keyPhrase,
    keywords: document.keywords.join(', '),
    hashtags: document.hashtags.map((tag) => `#${tag}`).join(' '),
    summary: keyPoints ? articleText({ body: [keyPoints] }) : document.description,
    language: document.language,
    words: articleWords(document),
    html: articleHtml(document, resolve),
    markdown: articleMarkdown(document, resolve),
    plain: articleText(document),
    picture: files.get(leadPicture(document) ?? '') ?? '',
    address: (await addressesOf(sql, [id])).get(id) ?? '',
  };
}

/** The file of the picture at the head of an article. */
function leadPicture({ body }: Pick<ArticleDocument, 'body'>): string | null {
  return body.find((block) => block.type === 'figure')?.file ?? null;
}

/** What the sending of a picture to a blog is known by. */
export const uploadKey = (blog: string, file: string) => `upload/${blog}/${file}`;

/**
 * Addresses of an article's pictures, and of their copies, on the blogs they were sent to.
 * @param only one blog; else whichever has them
 */
export async function sentFiles(
  sql: Sql,
  document: Pick<ArticleDocument, 'body'> & Partial<Pick<ArticleDocument, 'language'>>,
  only?: string,
): Promise<Map<string, string>> {
  const shown = await filesShown(sql, document);
  if (shown.length === 0) return new Map();
  const copies = await sql.rows<{ copy: string }>('SELECT copy FROM picture_size WHERE file IN (?)', [shown]);
  const files = [...new Set([...shown, ...copies.map(({ copy }) => copy)])];
  const blogs = only === undefined ? await sql.rows<{ id: string }>('SELECT id FROM blog') : [{ id: only }];
  if (blogs.length === 0) return new Map();
  const rows = await sql.rows<{ key_: string; result: unknown }>(
    "SELECT key_, result FROM intent WHERE key_ IN (?) AND state = 'done' AND result IS NOT NULL ORDER BY id",
    [blogs.flatMap(({ id }) => files.map((file) => uploadKey(id, file)))],
  );
  return new Map(
    rows.flatMap(({ key_, result }) =>
      typeof result === 'string' ? [[key_.slice(key_.lastIndexOf('/') + 1), result]] : [],
    ),
  );
}
