import { GuestComment } from '@grivo/contract';
import { articleHtml } from '@grivo/core';
import { type NextFunction, type Request, type Response, Router, urlencoded } from 'express';
import { fileAbout, fileChunks } from '../ground/files/repository.ts';
import { filesShown } from '../nouns/articles/charts.ts';
import { resolverFor } from '../nouns/articles/resolver.ts';
import { addGuestComment, guestCommentsOf } from '../nouns/comments/repository.ts';
import { countSeen, sharedAt } from '../nouns/shares/repository.ts';
import { notFound, ProblemError, problem } from './problem.ts';
import type { Product } from './product.ts';
import { found } from './publicLimits.ts';
import { escaped, publicPage, sharedPage } from './publicPage.ts';
import { sendBytes } from './send.ts';

/** A page that shows, and runs nothing: whatever an article holds is looked at here by people who never signed in. */
const SHOWN_ONLY =
  "sandbox; default-src 'none'; img-src 'self'; style-src 'unsafe-inline'; base-uri 'none'; form-action 'none'";

/** The same with a form of ours on it, which may be sent to where it is from and nowhere else. */
const WITH_FORM = SHOWN_ONLY.replace('sandbox;', 'sandbox allow-forms;').replace(
  "form-action 'none'",
  "form-action 'self'",
);
/** A name, a block and 2,000 letters, each of which may take nine bytes in a form. */
const MOST_FORM = '24kb';

/** What the routes of an address share. */
interface Addressed {
  doors: ReturnType<typeof found>;
  must: (request: Request) => Promise<NonNullable<Awaited<ReturnType<typeof sharedAt>>>>;
}

const guarded = (response: Response) =>
  response
    .setHeader('content-security-policy', SHOWN_ONLY)
    // A page that runs nothing is of no origin at all, and its own pictures would be another's.
    .setHeader('cross-origin-resource-policy', 'cross-origin')
    .setHeader('x-robots-tag', 'noindex, nofollow')
    .setHeader('referrer-policy', 'no-referrer');

/** Taking what somebody without an account says of an article. */
function saying({ ground, bell }: Product, { doors, must }: Addressed): Router {
  const router = Router();
  router.post(
    '/read/:token/comments',
    ...doors,
    urlencoded({ extended: false, limit: MOST_FORM, parameterLimit: 8 }),
    async (request, response) => {
      const { article, document, comments } = await must(request);
      if (!comments) throw notFound('address');
      const read = GuestComment.safeParse(request.body);
      const there = read.success && document.body.some(({ id }) => id === read.data.block);
      if (!read.success || !there)
        throw problem(
          422,
          'Not taken',
          read.success
            ? 'The part you speak of was changed meanwhile.'
            : 'Something of it is missing, or it is longer than 2,000 letters.',
          'Go back, look at it again and say it once more.',
        );
      const { name, block, words } = read.data;
      const kept = await addGuestComment(ground, { article, block, words, guest: name || 'A reader' });
      if (kept !== 'taken')
        throw problem(
          429,
          'Not taken',
          kept === 'too fast' ? 'Too much was said here within a minute.' : 'No more can be said at this address.',
          kept === 'too fast'
            ? 'Wait a minute, go back and say it again.'
            : 'Tell whoever gave it to you some other way.',
        );
      bell.ring({ kind: 'event' });
      guarded(response).redirect(303, `/read/${String(request.params['token'])}#said`);
    },
  );
  return router;
}

/** Articles at an address of their own, for people who have no account: read, and spoken of where that is allowed; nothing else. */
export function sharedRoutes(product: Product): Router {
  const { ground } = product;
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
  router.use(saying(product, { doors, must }));
  router.get('/read/:token', ...doors, async (request, response) => {
    const { article, document, comments } = await must(request);
    const token = String(request.params['token']);
    const said = comments ? { to: `/read/${token}/comments`, comments: await guestCommentsOf(db, article) } : null;
    const resolve = await resolverFor(db, document, (digest) => `/read/${token}/${digest}`);
    await countSeen(db, article);
    guarded(response)
      .setHeader('content-security-policy', said ? WITH_FORM : SHOWN_ONLY)
      .setHeader('cache-control', 'no-store')
      .type('html')
      .send(sharedPage(document, articleHtml(document, resolve), said));
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
        publicPage({ language: 'en', title: error.problem.title, body: `<p>${escaped(detail)} ${escaped(mend)}</p>` }),
      );
  });
  return router;
}
