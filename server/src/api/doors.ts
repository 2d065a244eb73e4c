import express, { type Request, type RequestHandler, type Response, Router } from 'express';
import { ipKeyGenerator, rateLimit } from 'express-rate-limit';
import { Procedures } from '../engine/briefState.ts';
import { sha } from '../ground/sha.ts';
import { askedLater, receive } from '../hooks/receive.ts';
import { hookBy } from '../hooks/repository.ts';
import type { Product } from '../product.ts';
import { takeFor } from '../sources/look.ts';
import { pushedFor, subscriptionBy, verified } from '../websub/subscriptions.ts';
import { notFound, problem } from './problem.ts';

const MOST_CALL = '256kb';
const MOST_PUSHED = '5mb';

/** Where this installation is reached by the request's own word, unless it was told. */
export function baseOf({ tools }: Product, request: Request): string {
  return tools.publicUrl?.replace(/\/$/, '') ?? `${request.protocol}://${request.headers.host ?? 'localhost'}`;
}

const MOST_CALLS = 600;
const MOST_STRANGE = 60;

/**
 * What stands before every door: addresses that are none are counted by who tries them, those that are by themselves, so
 * that nobody who guesses keeps the ones out who know.
 */
function doorsFound(isDoor: (token: string) => Promise<boolean>): RequestHandler[] {
  const limit = (most: number, keyGenerator: (request: Request) => string, sentence: string) =>
    rateLimit({
      windowMs: 60_000,
      limit: most,
      standardHeaders: true,
      legacyHeaders: false,
      keyGenerator,
      handler: (_q, _r, next) => next(problem(429, 'Too many calls', sentence, 'Wait a minute, then call again.')),
    });
  const strange = limit(
    MOST_STRANGE,
    (request) => ipKeyGenerator(request.ip ?? ''),
    `There were more than ${MOST_STRANGE} calls of unknown addresses in a minute.`,
  );
  const known = limit(
    MOST_CALLS,
    (request) => sha(String(request.params['token'])),
    `There were more than ${MOST_CALLS} calls in a minute.`,
  );
  const noDoor = problem(
    404,
    'No such hook',
    'There is no hook at this address.',
    'Copy its address again; it may have been replaced.',
  );
  return [
    (request, response, next) => {
      isDoor(String(request.params['token'])).then((is) => {
        if (is) void known(request, response, next);
        else void strange(request, response, (error?: unknown) => next(error ?? noDoor));
      }, next);
    },
  ];
}

/** Doors programs come in by without signing in: hooks by their secret address, and hubs that push feeds. */
export function doorRoutes(product: Product): Router {
  const router = Router();
  const { db } = product.ground;
  const hooks = doorsFound(async (token) => (await hookBy(db, token)) !== null);
  const pushes = doorsFound(async (token) => (await subscriptionBy(db, token)) !== null);
  router.post(
    '/hooks/:token',
    ...hooks,
    express.raw({ type: () => true, limit: MOST_CALL }),
    async (request: Request, response: Response) => {
      const body = Buffer.isBuffer(request.body) ? request.body.toString('utf8') : '';
      const token = String(request.params['token']);
      const received = await receive(product, token, body, request.headers);
      if (!received.ok) {
        const { status, title, problem: detail, mend, places } = received.refusal;
        throw problem(status, title, detail, mend, places);
      }
      const { taken } = received;
      response
        .status(taken.repeated ? 200 : 202)
        .json({ ...taken, ask: `${baseOf(product, request)}/hooks/${token}/${encodeURIComponent(taken.key)}` });
    },
  );
  router.get('/hooks/:token/:key', ...hooks, async (request: Request, response: Response) => {
    const outcome = await askedLater(product, String(request.params['token']), String(request.params['key']));
    if (!outcome) throw notFound('call');
    response.setHeader('cache-control', 'no-store').json(outcome);
  });
  router.get('/pushed/:token', ...pushes, async (request: Request, response: Response) => {
    const text = (name: string) => {
      const value = request.query[name];
      return typeof value === 'string' ? value : '';
    };
    const answer = await verified(product.ground.db, String(request.params['token']), {
      mode: text('hub.mode'),
      topic: text('hub.topic'),
      challenge: text('hub.challenge'),
      leaseSeconds: Number(text('hub.lease_seconds')),
    });
    if (answer === null) throw notFound('subscription');
    response.type('text/plain').send(answer);
  });
  router.post(
    '/pushed/:token',
    ...pushes,
    express.raw({ type: () => true, limit: MOST_PUSHED }),
    async (request: Request, response: Response) => {
      const body = Buffer.isBuffer(request.body) ? request.body : Buffer.alloc(0);
      const signature = request.header('x-hub-signature') ?? '';
      const source = await pushedFor(
        product.ground.db,
        product.secrets,
        String(request.params['token']),
        body,
        signature,
      );
      // What is wrongly signed is taken and left, as the standard has it.
      response.status(202).end();
      if (source === null) return;
      await product.look(source);
      const briefs = await takeFor(product.tools, new Procedures(), source);
      if (briefs.length > 0) product.bell.ring({ kind: 'admit' });
      product.bell.ring({ kind: 'event' });
    },
  );
  return router;
}
