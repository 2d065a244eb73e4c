import {
  ArticleAs,
  ArticleCopy,
  Articles,
  ArticlesCounted,
  ArticlesQuery,
  ArticlesWanted,
  ArticleWhole,
  Hangs,
  Neighbours,
  NeighboursQuery,
  NewShare,
  Share,
} from '@grivo/contract';
import {
  type ArticleDocument,
  addressOfPlace,
  articleFile,
  articleHtml,
  articlePlain,
  placeOf,
  styleMeasure,
  wordsOf,
} from '@grivo/core';
import type { Request } from 'express';
import { z } from 'zod';
import { COPIES, copyOf } from '../formats/copies/copy.ts';
import { fileAbout, fileChunks, fileOrNone } from '../ground/files/repository.ts';
import { besideOf } from '../nouns/articles/beside.ts';
import { isBusy } from '../nouns/articles/edits.ts';
import { sourcesOf } from '../nouns/articles/glance.ts';
import { articleLine, articlesPage, countArticles, neighboursOf } from '../nouns/articles/list.ts';
import { measuresOfRevision } from '../nouns/articles/measures.ts';
import { getArticle, readRevision } from '../nouns/articles/repository.ts';
import { resolverFor } from '../nouns/articles/resolver.ts';
import { hangsOnArticle } from '../nouns/keeping/article.ts';
import { labelsOn } from '../nouns/labels/repository.ts';
import { clearBriefs } from '../nouns/pipelines/clear.ts';
import { publicationsOf } from '../nouns/publishing/byHand.ts';
import { shareArticle, shareOf, unshareArticle } from '../nouns/shares/repository.ts';
import { styleOfBrief } from '../nouns/styles/meant.ts';
import { baseOf } from './base.ts';
import { notFound, problem } from './problem.ts';
import type { Product } from './product.ts';
import { type Route, route } from './route.ts';
import { sendBytes } from './send.ts';

const DAY = 86_400_000;

/** Why an article cannot be changed just now. */
export const BUSY = 'A step of its pipeline is at it just now. It can be changed once that is done.';

/** What the routes share. */
function helpers(product: Product) {
  const { ground, tools, bell } = product;
  const { db } = ground;
  const addressed = async (request: Request, article: string): Promise<Share['share']> => {
    const shared = await shareOf(ground, tools.secrets, article);
    if (!shared) return null;
    const { token, ...rest } = shared;
    return { address: `${baseOf(product, request)}/read/${token}`, ...rest };
  };
  const resolverOf = (document: ArticleDocument) => resolverFor(db, document, (digest) => `/api/files/${digest}`);
  const must = async (id: string) => {
    const article = await getArticle(db, id);
    if (!article?.current) throw notFound('article');
    return { article, document: await readRevision(db, article.current) };
  };
  return { ground, tools, bell, db, addressed, resolverOf, must };
}

type Helpers = ReturnType<typeof helpers>;

/** Articles as lists, pages, Markdown, and their pictures. */
export function articleRoutes(product: Product): Route[] {
  const shared = helpers(product);
  return [...listed(shared), ...whole(shared), ...copies(shared), ...removing(shared), ...sharing(shared)];
}

/** Articles: listed, read, and as text or file. */
function listed({ ground, db }: Helpers) {
  return [
    route({
      method: 'get',
      path: '/articles',
      shared: true,
      says: 'Articles: the newest first, or what comes by its slot and then what is out, or what fits words best',
      role: 'proofreader',
      query: ArticlesQuery,
      answer: Articles,
      handle: ({ query }) => articlesPage(db, query, ground.desk.now()),
    }),
    route({
      method: 'get',
      path: '/articles/count',
      shared: true,
      says: 'How many articles a list has, how many there are, and how many of them wait for a person',
      role: 'proofreader',
      query: ArticlesWanted,
      answer: ArticlesCounted,
      handle: ({ query }) => countArticles(db, query, ground.desk.now()),
    }),
    route({
      method: 'get',
      path: '/articles/{id}/neighbours',
      says: 'The article before and the one after, in the list as it is filtered',
      role: 'proofreader',
      query: NeighboursQuery,
      answer: Neighbours,
      handle: async ({ params, query }) => neighboursOf(db, params['id']!, query),
    }),
  ];
}

/** One with all that is on its page. */
function whole({ db, tools, resolverOf, must }: Helpers) {
  return [
    route({
      method: 'get',
      path: '/articles/{id}',
      says: 'An article with its page, its evidence and its measures',
      role: 'proofreader',
      answer: ArticleWhole,
      handle: async ({ params }) => {
        const { article, document } = await must(params['id']!);
        const line = await articleLine(db, article.id);
        const { named: passages, sources } = await sourcesOf(db, article.brief, document);
        const style = await styleOfBrief(db, article.brief);
        const { measures, doubts } = measuresOfRevision(
          article.current!,
          document,
          sources,
          await besideOf(db, article, document),
        );
        return {
          ...line!,
          rev: article.rev,
          line: article.line,
          revision: article.current!,
          busy: (await isBusy(db, article.brief)) ? BUSY : null,
          labels: await labelsOn(db, 'article', article.id),
          publications: await publicationsOf(tools, article.id, article.current!),
          document,
          html: articleHtml(document, await resolverOf(document)),
          passages: passages.map(({ id, text, locator }) => ({
            id,
            text,
            title: locator.title,
            place: placeOf(locator),
            address: addressOfPlace({ text, locator }),
          })),
          measures: style ? [...measures, styleMeasure(document, style)] : measures,
          doubts,
          house: style && { id: style.id, name: style.name, document: style.document },
        };
      },
    }),
  ];
}

/** An article in one of the forms that are text, with its type. */
function asText(
  as: z.infer<typeof ArticleAs>['as'],
  document: ArticleDocument,
  resolve: Parameters<typeof articleFile>[1],
): [type: string, text: string] {
  switch (as) {
    case 'markdown':
      return ['text/markdown', articleFile(document, resolve)];
    case 'plain':
      return ['text/plain', articlePlain(document)];
    case 'json':
      return ['application/json', JSON.stringify(document, null, 2)];
    default:
      // Shown, never run.
      return ['text/plain', articleHtml(document, resolve)];
  }
}

/** Articles as text, as a copy, and the files in them. */
function copies({ db, resolverOf, must }: Helpers) {
  return [
    route({
      method: 'get',
      path: '/articles/{id}/text',
      says: 'An article as Markdown with front matter, as HTML, as plain text, or as the document it is kept as',
      role: 'proofreader',
      query: ArticleAs,
      mime: 'text/plain',
      handle: async ({ params, query, response }) => {
        const { document } = await must(params['id']!);
        const resolve = await resolverOf(document);
        const [type, text] = asText(query.as, document, resolve);
        response.type(type).send(text);
      },
    }),
    route({
      method: 'get',
      path: '/articles/{id}/copy',
      says: 'An article as a file to be saved: Word, PDF, or a page of HTML that holds its pictures',
      role: 'proofreader',
      query: ArticleCopy,
      mime: 'application/octet-stream',
      handle: async ({ params, query: { as }, response }) => {
        const { document } = await must(params['id']!);
        const copied = await copyOf(as, document, await resolverOf(document), (digest) => fileOrNone(db, digest));
        if (!copied.ok) {
          const { sentence, mend } = wordsOf({ code: 'cannot-copy', form: as, problem: copied.problem });
          throw problem(422, `No ${as}`, sentence, mend);
        }
        response.type(COPIES[as].mime).send(copied.body);
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
}

/** What hangs on one, and removing it. */
function removing({ tools, bell, db, must }: Helpers) {
  return [
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
        const { kept } = await clearBriefs(tools, [article.brief]);
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
  ];
}

/** Sharing one at an address of its own. */
function sharing({ ground, tools, db, addressed, must }: Helpers) {
  return [
    route({
      method: 'get',
      path: '/articles/{id}/share',
      says: 'The address at which an article is read without signing in, if it is shared',
      role: 'proofreader',
      answer: Share,
      secret: 'again',
      handle: async ({ params, request }) => {
        const { article } = await must(params['id']!);
        return { share: await addressed(request, article.id) };
      },
    }),
    route({
      method: 'post',
      path: '/articles/{id}/share',
      says: 'Shares an article at an address of its own; one it had before leads nowhere any more',
      role: 'editor',
      body: NewShare,
      answer: Share,
      status: 200,
      secret: 'again',
      handle: async ({ params, body: { days, comments }, person, request }) => {
        const { article } = await must(params['id']!);
        const endsDesk = days === null ? null : ground.desk.now() + days * DAY;
        await shareArticle(ground, tools.secrets, article.id, { person: person.id, endsDesk, comments });
        return { share: await addressed(request, article.id) };
      },
    }),
    route({
      method: 'delete',
      path: '/articles/{id}/share',
      says: 'Takes the address of an article back',
      role: 'editor',
      handle: async ({ params }) => unshareArticle(db, (await must(params['id']!)).article.id),
    }),
  ];
}
