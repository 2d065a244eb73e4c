import {
  ArticleDocumentSchema,
  ArticleEdit,
  ArticleSaved,
  ArticleSources,
  EditableAs,
  EditableText,
  Made,
  OwnArticle,
  Revisions,
  TextEdit,
} from '@grivo/contract';
import { editableHtml, editableText } from '@grivo/core';
import { z } from 'zod';
import { besideOf } from '../nouns/articles/beside.ts';
import { passagesGiven } from '../nouns/articles/list.ts';
import { getArticle, readRevision } from '../nouns/articles/repository.ts';
import { isOfArticle, revisionsOf } from '../nouns/articles/revisions.ts';
import { getBlog } from '../nouns/blogs/repository.ts';
import { writeByHand } from '../nouns/pipelines/byHand.ts';
import { keepEdit } from './keepEdit.ts';
import { notFound, problem } from './problem.ts';
import type { Product } from './product.ts';
import { type Route, route } from './route.ts';

const EditableQuery = z.object({ as: EditableAs.default('markdown') });

/** Articles changed by people, and their revisions. */
export function articleEditRoutes(product: Product): Route[] {
  return [...editing(product), ...asText(product), ...revisions(product)];
}

/** An article that has a text. */
export async function must({ ground: { db } }: Product, id: string) {
  const article = await getArticle(db, id);
  if (!article?.current) throw notFound('article');
  return { ...article, current: article.current };
}

function editing(product: Product): Route[] {
  const { ground, bell } = product;
  const { db } = ground;
  return [
    route({
      method: 'post',
      path: '/articles',
      says: 'Makes an article of a text somebody wrote, held for them to be looked over; the brief it is made in is answered',
      role: 'editor',
      body: OwnArticle,
      answer: Made,
      status: 201,
      handle: async ({ body: { blog: id, title, text }, person }) => {
        const blog = await getBlog(db, id);
        if (!blog) throw notFound('blog');
        const brief = await writeByHand(ground, { blog, title, text, person });
        bell.ring({ kind: 'admit' });
        bell.ring({ kind: 'event' });
        return { id: brief };
      },
    }),
    route({
      method: 'put',
      path: '/articles/{id}/document',
      says: 'Keeps what a person made of an article as its newest revision; refused when somebody else changed it meanwhile',
      role: 'proofreader',
      body: ArticleEdit,
      answer: ArticleSaved,
      handle: async ({ params, body, person }) => {
        const article = await must(product, params['id']!);
        return keepEdit(product, article, body, person);
      },
    }),
    route({
      method: 'get',
      path: '/articles/{id}/sources',
      says: 'Every passage an article was made from, and what else it is measured against',
      role: 'proofreader',
      answer: ArticleSources,
      handle: async ({ params }) => {
        const article = await must(product, params['id']!);
        const all = await passagesGiven(db, article.brief);
        const beside = await besideOf(db, article, await readRevision(db, article.current));
        return { sources: all.map(({ id, text, language }) => ({ id, text, language })), beside };
      },
    }),
  ];
}

/** The body of an article as a text that is edited. */
function asText(product: Product): Route[] {
  const { tools } = product;
  const { db } = product.ground;
  return [
    route({
      method: 'get',
      path: '/articles/{id}/editable',
      says: 'The body of an article as Markdown or as HTML to be edited, with the revision it is of',
      role: 'proofreader',
      query: EditableQuery,
      answer: EditableText,
      handle: async ({ params, query: { as } }) => {
        const article = await must(product, params['id']!);
        const { body, language } = await readRevision(db, article.current);
        const text = as === 'html' ? editableHtml(body) : editableText(body);
        return { revision: article.current, text, language };
      },
    }),
    route({
      method: 'put',
      path: '/articles/{id}/editable',
      says: 'Keeps the body of an article as it was edited in Markdown or in HTML; its paragraphs keep what they rest on',
      role: 'proofreader',
      body: TextEdit,
      answer: ArticleSaved,
      handle: async ({ params, body: { text, as, ...edit }, person }) => {
        const article = await must(product, params['id']!);
        const read = await tools.reader.read('edited', { text, as, article: await readRevision(db, article.current) });
        const fault = (said: string, mend: string) =>
          problem(422, 'Cannot be read', said, mend, [{ place: 'text', problem: said }]);
        if (!read.ok) throw fault(read.problem, 'Change it and keep it again.');
        if (!read.value.ok) throw fault(read.value.problem, read.value.mend);
        return keepEdit(product, article, { ...edit, document: read.value.article }, person);
      },
    }),
  ];
}

function revisions(product: Product): Route[] {
  const { db } = product.ground;
  return [
    route({
      method: 'get',
      path: '/articles/{id}/revisions',
      says: 'The revisions of an article, newest first: when, by whom or by which step, and where each is out',
      role: 'proofreader',
      answer: Revisions,
      handle: async ({ params }) => {
        const article = await must(product, params['id']!);
        return { revisions: await revisionsOf(db, article.id) };
      },
    }),
    route({
      method: 'get',
      path: '/articles/{id}/revisions/{revision}',
      says: 'An article as it was in one revision',
      role: 'proofreader',
      answer: ArticleDocumentSchema,
      handle: async ({ params }) => {
        const article = await must(product, params['id']!);
        if (!(await isOfArticle(db, article.id, params['revision']!))) throw notFound('revision');
        return readRevision(db, params['revision']!);
      },
    }),
  ];
}
