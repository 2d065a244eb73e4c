import express, { type Request, type Response, Router } from 'express';
import { rateLimit } from 'express-rate-limit';
import { Procedures } from '../engine/briefState.ts';
import { askedLater, receive } from '../hooks/receive.ts';
import type { Product } from '../product.ts';
import { takeFor } from '../sources/look.ts';
import { pushedFor, verified } from '../websub/subscriptions.ts';
import { notFound, problem } from './problem.ts';

const MOST_CALL = '256kb';
const MOST_PUSHED = '5mb';

/** Where this installation is reached by the request's own word, unless it was told. */
export function baseOf({ tools }: Product, request: Request): string {
  return tools.publicUrl?.replace(/\/$/, '') ?? `${request.protocol}://${request.headers.host ?? 'localhost'}`;
}

/** Doors programs come in by without signing in: hooks by their secret address, and hubs that push feeds. */
export function doorRoutes(product: Product): Router {
  const router = Router();
  const limited = rateLimit({
    windowMs: 60_000,
    limit: 600,
    standardHeaders: true,
    legacyHeaders: false,
    handler: (_q, _r, next) =>
      next(
        problem(
          429,
          'Too many calls',
          'There were more than 600 calls in a minute.',
          'Wait a minute, then call again.',
        ),
      ),
  });
  router.post(
    '/hooks/:token',
    limited,
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
  router.get('/hooks/:token/:key', limited, async (request: Request, response: Response) => {
    const outcome = await askedLater(product, String(request.params['token']), String(request.params['key']));
    if (!outcome) throw notFound('call');
    response.setHeader('cache-control', 'no-store').json(outcome);
  });
  router.get('/pushed/:token', limited, async (request: Request, response: Response) => {
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
    limited,
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
      const briefs = await takeFor(product.ground, new Procedures(), source);
      if (briefs.length > 0) product.bell.ring({ kind: 'admit' });
      product.bell.ring({ kind: 'event' });
    },
  );
  return router;
}
