import {
  type Article,
  ArticleAs,
  ArticleCopy,
  Articles,
  ArticlesQuery,
  ArticleWhole,
  Hangs,
  Neighbours,
  NeighboursQuery,
} from '@grivo/contract';
import { type ArticleDocument, addressOfPlace, articleFile, articleHtml, placeOf, wordsOf } from '@grivo/core';
import { z } from 'zod';
import { measuresOf } from '../articles/measures.ts';
import { getArticle, readRevision } from '../articles/repository.ts';
import { resolverFor } from '../articles/resolver.ts';
import { COPIES, copyOf } from '../copies/copy.ts';
import { fileAbout, fileChunks } from '../files/repository.ts';
import { hangsOnArticle } from '../keeping/article.ts';
import { passagesById } from '../materials/repository.ts';
import { sharesOf } from '../money/shares.ts';
import { clearBriefs } from '../pipelines/clear.ts';
import type { Product } from '../product.ts';
import type { Sql } from '../store/database.ts';
import { notFound, problem } from './problem.ts';
import { type Route, route } from './route.ts';
import { sendBytes } from './send.ts';

const LIST = `SELECT a.id, a.brief, COALESCE(a.blog, l.blog) AS blog, a.title, a.words, IF(a.standing = 'in work' AND b.standing IN ('held', 'stopped'), b.standing, IF(a.standing = 'out' AND p.state = 'draft', 'draft', a.standing)) AS standing, a.language, p.address, p.out_desk AS outDesk, l.due_desk AS dueDesk, 0 AS micros
  FROM article a JOIN brief b ON b.id = a.brief
  LEFT JOIN publication p ON p.id = (SELECT q.id FROM publication q WHERE q.article = a.id ORDER BY q.state = 'live' DESC, q.address IS NULL, q.id LIMIT 1)
  LEFT JOIN placement l ON l.article = a.id AND l.blog = (SELECT m.blog FROM placement m WHERE m.article = a.id ORDER BY m.blog <=> a.blog DESC, m.due_desk LIMIT 1)`;

type Wanted = Pick<z.infer<typeof ArticlesQuery>, 'standing' | 'blog' | 'q'>;

/** What of all articles is wanted; one of a brief that is held or stopped is neither in work nor anything else. */
function whereOf({ standing, blog, q }: Wanted): { where: string[]; values: unknown[] } {
  const where = ['a.trial = 0'];
  const values: unknown[] = [];
  if (standing === 'held' || standing === 'stopped') {
    where.push("a.standing = 'in work' AND b.standing = ?");
    values.push(standing);
  } else if (standing === 'draft' || standing === 'out') {
    const live = "EXISTS (SELECT 1 FROM publication o WHERE o.article = a.id AND o.state = 'live')";
    where.push(`a.standing = 'out' AND ${standing === 'draft' ? 'NOT ' : ''}${live}`);
  } else if (standing) {
    where.push('a.standing = ?');
    values.push(standing);
    if (standing === 'in work') where.push("b.standing NOT IN ('held', 'stopped')");
  }
  if (blog) {
    where.push(
      '(a.blog = ? OR EXISTS (SELECT 1 FROM publication o WHERE o.article = a.id AND o.blog = ?) OR EXISTS (SELECT 1 FROM placement o WHERE o.article = a.id AND o.blog = ?))',
    );
    values.push(blog, blog, blog);
  }
  if (q) {
    where.push('a.title LIKE ?');
    values.push(`%${q.replace(/[\\%_]/g, '\\$&')}%`);
  }
  return { where, values };
}

/** Articles with what each of them cost. */
async function priced(sql: Sql, rows: readonly Article[]): Promise<Article[]> {
  const shares = await sharesOf(sql, rows);
  return rows.map((row) => ({ ...row, micros: shares.get(row.id) ?? 0 }));
}

/** Articles as lists, pages, Markdown, and their pictures. */
export function articleRoutes({ ground, tools, bell }: Product): Route[] {
  const { db } = ground;
  const resolverOf = (document: ArticleDocument) => resolverFor(db, document, (digest) => `/api/files/${digest}`);
  const must = async (id: string) => {
    const article = await getArticle(db, id);
    if (!article?.current) throw notFound('article');
    return { article, document: await readRevision(db, article.current) };
  };
  return [
    route({
      method: 'get',
      path: '/articles',
      says: 'Articles, newest first',
      role: 'proofreader',
      query: ArticlesQuery,
      answer: Articles,
      handle: async ({ query: { before, limit, ...wanted } }) => {
        const { where, values } = whereOf(wanted);
        const rows = await db.rows<Article>(
          `${LIST} WHERE ${[...where, 'a.id < ?'].join(' AND ')} ORDER BY a.id DESC LIMIT ?`,
          [...values, before ?? 'z', limit],
        );
        return { articles: await priced(db, rows) };
      },
    }),
    route({
      method: 'get',
      path: '/articles/{id}/neighbours',
      says: 'The article before and the one after, in the list as it is filtered',
      role: 'proofreader',
      query: NeighboursQuery,
      answer: Neighbours,
      handle: async ({ params, query }) => {
        const { where, values } = whereOf(query);
        const beside = async (sign: '<' | '>', order: 'ASC' | 'DESC') => {
          const [row] = await db.rows<{ id: string }>(
            `SELECT a.id FROM article a JOIN brief b ON b.id = a.brief WHERE ${where.join(' AND ')} AND a.id ${sign} ? ORDER BY a.id ${order} LIMIT 1`,
            [...values, params['id']],
          );
          return row?.id ?? null;
        };
        const [newer, older] = await Promise.all([beside('>', 'ASC'), beside('<', 'DESC')]);
        return { newer, older };
      },
    }),
    route({
      method: 'get',
      path: '/articles/{id}',
      says: 'An article with its page, its evidence and its measures',
      role: 'proofreader',
      answer: ArticleWhole,
      handle: async ({ params }) => {
        const { article, document } = await must(params['id']!);
        const [row] = await db.rows<Article>(`${LIST} WHERE a.id = ?`, [article.id]);
        const passages = await passagesById(db, [
          ...new Set(document.body.flatMap((block) => block.evidence?.map((e) => e.passage) ?? [])),
        ]);
        const all = await allPassages(article.brief);
        return {
          ...(await priced(db, [row!]))[0]!,
          rev: article.rev,
          document,
          html: articleHtml(document, await resolverOf(document)),
          passages: passages.map(({ id, text, locator }) => ({
            id,
            text,
            title: locator.title,
            place: placeOf(locator),
            address: addressOfPlace({ text, locator }),
          })),
          ...measuresOf(document, all.length > 0 ? all : passages),
        };
      },
    }),
    route({
      method: 'get',
      path: '/articles/{id}/text',
      says: 'An article as Markdown with front matter, or as HTML',
      role: 'proofreader',
      query: ArticleAs,
      mime: 'text/plain',
      handle: async ({ params, query, response }) => {
        const { document } = await must(params['id']!);
        const resolve = await resolverOf(document);
        response
          .type(query.as === 'markdown' ? 'text/markdown' : 'text/plain')
          .send(query.as === 'markdown' ? articleFile(document, resolve) : articleHtml(document, resolve));
      },
    }),
    route({
      method: 'get',
      path: '/articles/{id}/copy',
      says: 'An article as a file to be saved: Word or PDF',
      role: 'proofreader',
      query: ArticleCopy,
      mime: 'application/octet-stream',
      handle: async ({ params, query: { as }, response }) => {
        const { document } = await must(params['id']!);
        const copied = await copyOf(as, document, await resolverOf(document), db);
        if (!copied.ok) {
          const { sentence, mend } = wordsOf({ code: 'cannot-copy', form: as, problem: copied.problem });
          throw problem(422, `No ${as}`, sentence, mend);
        }
        response.type(COPIES[as].mime).send(copied.body);
      },
    }),
    route({
      method: 'get',
      path: '/articles/{id}/hangs',
      says: 'What hangs on an article, to be looked at before it is removed',
      role: 'editor',
      answer: Hangs,
      handle: async ({ params }) => {
        const { article } = await must(params['id']!);
        return { name: article.title, ...(await hangsOnArticle(db, article.brief, article.id)) };
      },
    }),
    route({
      method: 'delete',
      path: '/articles/{id}',
      says: 'Removes an article that has ended, its posts on blogs first, with the brief it was made from',
      role: 'editor',
      handle: async ({ params }) => {
        const { article } = await must(params['id']!);
        const { unless } = await hangsOnArticle(db, article.brief, article.id);
        if (unless.length > 0)
          throw problem(
            409,
            'Not ended',
            `‘${article.title}’ cannot be removed. ${unless.join(' ')}`,
            'Do that first.',
          );
        const { kept } = await clearBriefs(ground, tools.micropub, [article.brief]);
        if (kept.length > 0)
          throw problem(
            502,
            'A blog keeps it',
            `${kept.map(({ address, said }) => `${address} could not be taken away: ${said}`).join('. ')}. The article is kept.`,
            'Test the connection of the blog, or take the post away there, then remove it again.',
          );
        bell.ring({ kind: 'event' });
      },
    }),
    route({
      method: 'get',
      path: '/files/{digest}',
      says: 'A picture or other file by the SHA-256 of its content',
      role: 'proofreader',
      mime: 'application/octet-stream',
      handle: async ({ params, response }) => {
        const about = z
          .string()
          .regex(/^[0-9a-f]{64}$/)
          .safeParse(params['digest']).success
          ? await fileAbout(db, params['digest']!)
          : null;
        if (!about) throw notFound('file');
        response.setHeader('cache-control', 'private, max-age=31536000, immutable');
        await sendBytes(response, fileChunks(db, about.digest), { name: about.digest, bytes: about.bytes });
      },
    }),
  ];

  /** Every passage the brief was given, for finding figures that stand in none. */
  async function allPassages(brief: string): Promise<{ id: string; text: string }[]> {
    const rows = await db.rows<{ gave: { passages?: unknown } }>(
      "SELECT COALESCE(o.decided, o.proposed) AS gave FROM output o JOIN step_run r ON r.id = o.step_run WHERE r.brief = ? AND r.state = 'done'",
      [brief],
    );
    const ids = rows.flatMap(({ gave }) =>
      Array.isArray(gave.passages) ? gave.passages.filter((id): id is string => typeof id === 'string') : [],
    );
    return passagesById(db, [...new Set(ids)]);
  }
}
