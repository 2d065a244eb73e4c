import express, { type Request, type Response, Router } from 'express';
import { Procedures } from '../engine/briefState.ts';
import { askedLater, receive } from '../nouns/hooks/receive.ts';
import { hookBy } from '../nouns/hooks/repository.ts';
import { takeFor } from '../nouns/sources/look.ts';
import { pushedFor, subscriptionBy, verified } from '../ports/websub/subscriptions.ts';
import { baseOf } from './base.ts';
import { notFound, problem } from './problem.ts';
import type { Product } from './product.ts';
import { found } from './publicLimits.ts';

const MOST_CALL = '256kb';
const MOST_PUSHED = '5mb';

const NO_HOOK = {
  title: 'No such hook',
  says: 'There is no hook at this address.',
  mend: 'Copy its address again; it may have been replaced.',
};

/** Doors programs come in by without signing in: hooks by their secret address, and hubs that push feeds. */
export function hookRoutes(product: Product): Router {
  const router = Router();
  const { db } = product.ground;
  const hooks = found(async (token) => (await hookBy(db, token)) !== null, NO_HOOK);
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
  addPushes(router, product);
  return router;
}

/** What hubs of feeds ask and push. */
function addPushes(router: Router, product: Product): void {
  const { db } = product.ground;
  const pushes = found(async (token) => (await subscriptionBy(db, token)) !== null, NO_HOOK);
  router.get('/pushed/:token', ...pushes, async (request: Request, response: Response) => {
    const text = (name: string) => {
      const value = request.query[name];
      return typeof value === 'string' ? value : '';
    };
    const answer = await verified(db, String(request.params['token']), {
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
      const source = await pushedFor(db, product.secrets, String(request.params['token']), body, signature);
      // What is wrongly signed is taken and left, as the standard has it.
      response.status(202).end();
      if (source === null) return;
      await product.look(source);
      const briefs = await takeFor(product.tools, new Procedures(), source);
      if (briefs.length > 0) product.bell.ring({ kind: 'admit' });
      product.bell.ring({ kind: 'event' });
    },
  );
}
