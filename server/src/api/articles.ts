import { articleFile, articleHtml } from '@grivo/core';
import { Router } from 'express';
import { addressesOf, getArticle, readRevision } from '../articles/repository.ts';
import { fileAbout, fileChunks } from '../files/repository.ts';
import { passagesById } from '../materials/repository.ts';
import type { Product } from '../product.ts';
import { notFound } from './problem.ts';

const PAGE = 50;

/** Articles as lists, pages, Markdown, and their pictures. */
export function articleRoutes({ ground }: Product): Router {
  const router = Router();
  const { db } = ground;
  router.get('/articles', async (request, response) => {
    const before = typeof request.query['before'] === 'string' ? request.query['before'] : 'z';
    const articles = await db.rows(
      `SELECT a.id, a.brief, a.blog, a.title, a.words, a.standing, a.language, p.address, p.out_desk AS outDesk, l.due_desk AS dueDesk
       FROM article a LEFT JOIN publication p ON p.article = a.id LEFT JOIN placement l ON l.article = a.id WHERE a.trial = 0 AND a.id < ? ORDER BY a.id DESC LIMIT ?`,
      [before, PAGE],
    );
    response.json({ articles });
  });
  router.get('/articles/:id', async (request, response) => {
    const article = await getArticle(db, request.params.id);
    if (!article?.current) throw notFound('article');
    const document = await readRevision(db, article.current);
    const links = document.body.flatMap((block) =>
      block.type === 'paragraph'
        ? block.content.flatMap((part) => (part.link?.to === 'article' ? [part.link.article] : []))
        : [],
    );
    const addresses = await addressesOf(db, links);
    const resolve = {
      file: (digest: string) => `/api/files/${digest}`,
      article: (id: string) => addresses.get(id) ?? null,
    };
    if (request.query['as'] === 'markdown')
      return void response.type('text/markdown').send(articleFile(document, resolve));
    const passages = await passagesById(db, [
      ...new Set(document.body.flatMap((block) => block.evidence?.map((e) => e.passage) ?? [])),
    ]);
    response.json({ ...article, document, html: articleHtml(document, resolve), passages });
  });
  router.get('/files/:digest', async (request, response) => {
    const about = await fileAbout(db, request.params.digest);
    if (!about) throw notFound('file');
    response.type(about.mime).setHeader('cache-control', 'private, max-age=31536000, immutable');
    for await (const chunk of fileChunks(db, about.digest)) response.write(chunk);
    response.end();
  });
  return router;
}
