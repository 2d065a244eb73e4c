import {
  AnewPrice,
  ArticlesZip,
  DecideArticles,
  type Decision,
  DoneToArticles,
  KeptLists,
  Made,
  ManyArticles,
  NewKeptList,
  PutPriced,
} from '@grivo/contract';
import { z } from 'zod';
import { Procedures } from '../engine/briefState.ts';
import { writeZip } from '../formats/copies/zip.ts';
import { isThere } from '../ground/store/there.ts';
import { type ArticleRow, getArticle } from '../nouns/articles/repository.ts';
import { createPipeline } from '../nouns/pipelines/repository.ts';
import { type DoneToOne, decideOn } from '../nouns/proofing/decide.ts';
import { forgetList, keepList, keptLists, MOST_LISTS, renameList } from '../nouns/proofing/lists.ts';
import { doToArticle } from '../nouns/proofing/many.ts';
import { zippedFiles } from '../nouns/proofing/zipped.ts';
import { procedureOfBrief } from '../nouns/routines/versions.ts';
import { notFound, problem } from './problem.ts';
import type { Product } from './product.ts';
import { putCosts, putOne } from './putMany.ts';
import { type Route, route } from './route.ts';
import { standardWriter } from './writer.ts';

/** Letters of a name. */
const LONGEST_NAME = 120;

/** Several articles at once, their settings used again, and the lists of them a person keeps. */
export function proofingRoutes(product: Product): Route[] {
  return [...many(product), ...again(product), ...zip(product), ...lists(product)];
}

const GONE: DoneToOne = { done: false, why: 'It was removed meanwhile.' };

/** Does a thing to each of several articles; one that fails leaves the others alone. */
async function toEach(
  { ground, bell }: Product,
  ids: readonly string[],
  gone: DoneToOne,
  act: (article: ArticleRow) => Promise<DoneToOne>,
): Promise<DoneToArticles> {
  const left: DoneToArticles['left'] = [];
  let done = 0;
  for (const id of new Set(ids)) {
    const article = await getArticle(ground.db, id);
    const outcome = article ? await act(article) : gone;
    if (outcome.done) {
      done++;
      for (const lane of outcome.lanes ?? []) bell.ring({ kind: 'lane', lane });
    } else left.push({ id, title: article?.title ?? '', why: outcome.why });
  }
  bell.ring({ kind: 'admit' });
  bell.ring({ kind: 'event' });
  return { done, left };
}

function many(product: Product) {
  const { ground, tools, serviceFor } = product;
  const procedures = new Procedures();
  return [
    route({
      method: 'post',
      path: '/articles/decide',
      says: 'A person’s word on several articles that wait for it; those that do not wait are left as they are',
      role: 'proofreader',
      body: DecideArticles,
      answer: DoneToArticles,
      status: 200,
      handle: async ({ body: { articles, ...said }, person }) => {
        const decision: Decision =
          said.decide === 'pass'
            ? { decide: 'pass', change: {} }
            : said.decide === 'send back'
              ? { ...said, to: null }
              : said;
        return toEach(product, articles, GONE, (article) =>
          decideOn(tools, procedures, serviceFor, article, { decision, person: person.id }),
        );
      },
    }),
    route({
      method: 'post',
      path: '/articles/many',
      says: 'Brings the newest text of several articles to their blogs, takes them from there, removes them, puts them at free slots or in other words, or labels them',
      role: 'editor',
      body: ManyArticles,
      answer: DoneToArticles,
      status: 200,
      handle: async ({ body: { articles, ...act }, person }) => {
        if (act.do === 'label' && !(await isThere(ground.db, 'label', act.label))) throw notFound('label');
        if (act.do === 'put') {
          const service = standardWriter(tools);
          return toEach(product, articles, GONE, (article) =>
            putOne(product, service, article, { degree: act.degree, person: person.id }),
          );
        }
        // An article goes with the others of its brief.
        return toEach(product, articles, act.do === 'remove' ? { done: true } : GONE, (article) =>
          doToArticle(tools, act, article),
        );
      },
    }),
    ...manyPriced(product),
  ];
}

/** What it costs to do a thing to several. */
function manyPriced(product: Product): Route[] {
  const { ground, tools } = product;
  return [
    route({
      method: 'post',
      path: '/articles/many/price',
      says: 'About what it costs to put several articles in other words',
      role: 'editor',
      body: PutPriced,
      answer: AnewPrice,
      status: 200,
      secret: 'again',
      handle: async ({ body: { articles, degree } }) => {
        const service = standardWriter(tools);
        let micros = 0;
        for (const id of new Set(articles)) {
          const article = await getArticle(ground.db, id);
          if (article) micros += await putCosts(product, service, article, degree);
        }
        return { micros };
      },
    }),
  ];
}

/** The settings of an article, used again. */
function again({ ground, bell }: Product) {
  return [
    route({
      method: 'post',
      path: '/articles/{id}/pipeline',
      says: 'Makes a pipeline, off at first, that works as the one did that made an article, as it was then',
      role: 'editor',
      answer: Made,
      status: 201,
      handle: async ({ params, person }) => {
        const article = await getArticle(ground.db, params['id']!);
        const document = article ? await procedureOfBrief(ground.db, article.brief) : null;
        if (!article || !document) throw notFound('article');
        const name = `As for ‘${article.title}’`.slice(0, LONGEST_NAME);
        const id = await createPipeline(ground, { name, document, person: person.id });
        bell.ring({ kind: 'event' });
        return { id };
      },
    }),
  ];
}

function zip({ ground: { db } }: Product) {
  return [
    route({
      method: 'get',
      path: '/articles/zip',
      says: 'Several articles as files of one form in a zip, with their pictures',
      role: 'proofreader',
      query: ArticlesZip,
      mime: 'application/zip',
      handle: async ({ query: { as, articles }, response }) => {
        response.type('application/zip');
        response.setHeader('content-disposition', 'attachment; filename="articles.zip"');
        try {
          await writeZip(zippedFiles(db, articles, as), response);
        } catch (error) {
          // Who stopped reading is no fault of ours.
          if (!response.destroyed) throw error;
        }
      },
    }),
  ];
}

function lists({ ground }: Product) {
  const { db } = ground;
  return [
    route({
      method: 'get',
      path: '/lists',
      says: 'The lists of articles a person kept',
      role: 'proofreader',
      answer: KeptLists,
      handle: async ({ person }) => ({ lists: await keptLists(db, person.id) }),
    }),
    route({
      method: 'post',
      path: '/lists',
      says: 'Keeps a list of articles by a name; one of that name becomes this one',
      role: 'proofreader',
      body: NewKeptList,
      answer: Made,
      handle: async ({ body, person }) => {
        const id = await keepList(ground, person.id, body);
        if (id === 'too many')
          throw problem(
            409,
            'Too many lists',
            `You keep ${MOST_LISTS} lists already.`,
            'Remove one you do not use any more.',
          );
        return { id };
      },
    }),
    route({
      method: 'patch',
      path: '/lists/{id}',
      says: 'Gives a kept list another name',
      role: 'proofreader',
      body: NewKeptList.pick({ name: true }),
      handle: async ({ params, body: { name }, person }) => {
        const id = mustBeId(params['id']!);
        if (!(await renameList(db, person.id, id, name)))
          throw problem(409, 'Name taken', `You have a list ‘${name}’ already.`, 'Give it another name.');
      },
    }),
    route({
      method: 'delete',
      path: '/lists/{id}',
      says: 'Forgets a kept list; its articles stay',
      role: 'proofreader',
      handle: async ({ params, person }) => {
        if (!(await forgetList(db, person.id, mustBeId(params['id']!)))) throw notFound('list');
      },
    }),
  ];
}

function mustBeId(text: string): string {
  if (
    !z
      .string()
      .regex(/^[0-9a-z]{20}$/)
      .safeParse(text).success
  )
    throw notFound('list');
  return text;
}
