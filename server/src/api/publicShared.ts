import { type ArticleDocument, articleHtml, directionOf } from '@grivo/core';
import { type NextFunction, type Request, type Response, Router } from 'express';
import { fileAbout, fileChunks } from '../ground/files/repository.ts';
import { filesShown } from '../nouns/articles/charts.ts';
import { resolverFor } from '../nouns/articles/resolver.ts';
import { countSeen, sharedAt } from '../nouns/shares/repository.ts';
import { notFound, ProblemError } from './problem.ts';
import type { Product } from './product.ts';
import { found } from './publicLimits.ts';
import { sendBytes } from './send.ts';

/** A page that shows, and runs nothing: whatever an article holds is looked at here by people who never signed in. */
const SHOWN_ONLY =
  "sandbox; default-src 'none'; img-src 'self'; style-src 'unsafe-inline'; base-uri 'none'; form-action 'none'";

const STYLE = `body{max-width:42rem;margin:0 auto;padding:2rem 1rem;font:18px/1.6 Georgia,serif;color:#1c1a17;background:#fffefb}h1{font-size:2rem;line-height:1.2}
img{max-width:100%;height:auto}table{border-collapse:collapse;width:100%}th,td{padding:.3em .6em;border-bottom:1px solid #d8d2c6;text-align:start;vertical-align:top}
blockquote{margin:1em 0;padding-inline-start:1em;border-inline-start:3px solid #d8d2c6}figure{margin:1.5em 0}figcaption,.note{font-size:.85rem;color:#5c574f}a{color:#1f4e79}`;

const escaped = (text: string) =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;');

function page({ language, title, body }: { language: string; title: string; body: string }): string {
  return `<!doctype html><html lang="${escaped(language)}" dir="${directionOf(language)}"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1"><meta name="robots" content="noindex, nofollow"><title>${escaped(title)}</title><style>${STYLE}</style></head><body><main><h1>${escaped(title)}</h1>${body}</main></body></html>`;
}

function pageOf({ title, description, language }: ArticleDocument, html: string): string {
  const body = `<p><em>${escaped(description)}</em></p>${html}<p class="note" lang="en" dir="ltr">Shared for reading. Whoever has this address can read it.</p>`;
  return page({ language, title, body });
}

/** Articles at an address of their own, for people who have no account: read, and nothing else. */
export function sharedRoutes({ ground }: Product): Router {
  const router = Router();
  const { db } = ground;
  const doors = found(async (token) => (await sharedAt(ground, token)) !== null, {
    title: 'Nothing here',
    says: 'Nothing is shared at this address, or not any more.',
    mend: 'Ask whoever gave it to you for a new one.',
  });
  const must = async (request: Request) => {
    const shared = await sharedAt(ground, String(request.params['token']));
    if (!shared) throw notFound('address');
    return shared;
  };
  const guarded = (response: Response) =>
    response
      .setHeader('content-security-policy', SHOWN_ONLY)
      // A page that runs nothing is of no origin at all, and its own pictures would be another's.
      .setHeader('cross-origin-resource-policy', 'cross-origin')
      .setHeader('x-robots-tag', 'noindex, nofollow')
      .setHeader('referrer-policy', 'no-referrer');
  router.get('/read/:token', ...doors, async (request, response) => {
    const { article, document } = await must(request);
    const token = String(request.params['token']);
    const resolve = await resolverFor(db, document, (digest) => `/read/${token}/${digest}`);
    await countSeen(db, article);
    guarded(response)
      .setHeader('cache-control', 'no-store')
      .type('html')
      .send(pageOf(document, articleHtml(document, resolve)));
  });
  router.get('/read/:token/:digest', ...doors, async (request, response) => {
    const { document } = await must(request);
    // Only what the article itself shows.
    const own = (await filesShown(db, document)).includes(String(request.params['digest']));
    const about = own ? await fileAbout(db, String(request.params['digest'])) : null;
    if (!about) throw notFound('file');
    guarded(response).setHeader('cache-control', 'private, max-age=3600');
    await sendBytes(response, fileChunks(db, about.digest), { name: about.digest, bytes: about.bytes });
  });
  // Whoever follows an old link is a person: it is said as a page.
  router.use('/read', (error: unknown, request: Request, response: Response, next: NextFunction) => {
    if (!(error instanceof ProblemError) || request.accepts(['json', 'html']) !== 'html') return next(error);
    const { status, detail, mend } = error.problem;
    guarded(response)
      .status(status)
      .type('html')
      .send(
        page({ language: 'en', title: 'Nothing to read here', body: `<p>${escaped(detail)} ${escaped(mend)}</p>` }),
      );
  });
  return router;
}
