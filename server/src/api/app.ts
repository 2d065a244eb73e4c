import type { IncomingMessage } from 'node:http';
import { Person, Problem, SignIn } from '@grivo/contract';
import express, { type Express, Router } from 'express';
import { rateLimit } from 'express-rate-limit';
import helmet from 'helmet';
import { EventFeed } from '../events/feed.ts';
import { signIn, signOut } from '../people/sessions.ts';
import type { Product } from '../product.ts';
import { COOKIE, ownOriginOnly, tokenOf } from './access.ts';
import { articleRoutes } from './articles.ts';
import { blogRoutes } from './blogs.ts';
import { briefRoutes } from './briefs.ts';
import { deskRoutes, VERSION } from './desk.ts';
import { doorRoutes } from './doors.ts';
import { eventRoutes } from './events.ts';
import { holdRoutes } from './holds.ts';
import { intakeRoutes } from './intake.ts';
import { keyRoutes } from './keys.ts';
import { pageRoutes } from './page.ts';
import { phraseRoutes } from './phrases.ts';
import { pipelineRoutes } from './pipelines.ts';
import { answerProblems, bodyOf, notFound, problem } from './problem.ts';
import { mount, openApi, type Route, route, schemaOf } from './route.ts';
import { routineRoutes } from './routines.ts';
import { serviceRoutes } from './services.ts';
import { sourceRoutes } from './sources.ts';

/** Everything the API does for people who are signed in. */
export function allRoutes(product: Product): Route[] {
  return [
    route({
      method: 'get',
      path: '/session',
      says: 'Who is signed in',
      role: 'proofreader',
      answer: Person,
      handle: async ({ person }) => person,
    }),
    ...deskRoutes(product),
    ...pipelineRoutes(product),
    ...routineRoutes(product),
    ...briefRoutes(product),
    ...holdRoutes(product),
    ...sourceRoutes(product),
    ...phraseRoutes(product),
    ...intakeRoutes(product),
    ...articleRoutes(product),
    ...blogRoutes(product),
    ...serviceRoutes(product),
    ...keyRoutes(product),
  ];
}

/** The description of the API, the schema of problems included. */
export function description(routes: readonly Route[]): Record<string, unknown> {
  const said = openApi(routes, VERSION);
  (said['components'] as { schemas: Record<string, unknown> }).schemas['Problem'] = schemaOf(Problem, 'output');
  return said;
}

/** The API and the screens, as an Express application. */
export function app(product: Product): Express {
  const { ground } = product;
  const server = express();
  server.disable('x-powered-by');
  server.use(
    helmet({
      contentSecurityPolicy: {
        directives: {
          defaultSrc: ["'none'"],
          scriptSrc: [builtOnly],
          // Floating parts are placed by style attributes.
          styleSrc: ["'self'", "'unsafe-inline'"],
          imgSrc: ["'self'", 'data:'],
          mediaSrc: ["'self'", 'blob:'],
          connectSrc: ["'self'"],
          fontSrc: ["'self'"],
          workerSrc: [builtOnly],
          formAction: ["'self'"],
          frameAncestors: ["'none'"],
          baseUri: ["'none'"],
          upgradeInsecureRequests: null,
        },
      },
      strictTransportSecurity: false,
    }),
  );
  // Programs call these with keys of their own, from wherever they are.
  server.use(doorRoutes(product));
  server.use(ownOriginOnly);
  server.use(express.json({ limit: '2mb' }));
  server.get('/api/health', (_request, response, next) => {
    ground.db
      .rows('SELECT 1')
      .then(() => response.json({ well: true, deskNow: new Date(ground.desk.now()).toISOString() }))
      .catch(next);
  });
  server.use('/api', sessionRoutes(product));
  const routes = allRoutes(product);
  const router = Router();
  // A tag tells the rev a change is made from, not everything that is said beside it: nothing is answered from a store.
  router.use((_request, response, next) => {
    response.setHeader('cache-control', 'no-store');
    next();
  });
  const described = description(routes);
  router.get('/openapi.json', (_request, response) => void response.json(described));
  const feed = new EventFeed(ground, product.bell);
  product.onClose(() => feed.close());
  eventRoutes(router, product, feed);
  mount(router, routes, product);
  server.use('/api', router);
  server.use('/api', (_request, _response, next) => next(notFound('address')));
  server.use(pageRoutes());
  server.use(answerProblems(ground.log));
  return server;
}

/**
 * Scripts come from the folder of built files and nowhere else of ours: what people upload is no script, whatever it says
 * of itself (CSP level 3, section 6.7.2.9: a path that ends with a slash holds for what is in it).
 */
function builtOnly(request: IncomingMessage): string {
  const { host = '' } = request.headers;
  return /^[\w.-]+(?::\d{1,5})?$/.test(host) ? `${host}/assets/` : "'none'";
}

/** Signing in and out. */
function sessionRoutes({ ground }: Product): Router {
  const router = Router();
  const tries = rateLimit({
    windowMs: 60_000,
    limit: 20,
    standardHeaders: true,
    legacyHeaders: false,
    handler: (_q, _r, next) =>
      next(
        problem(429, 'Too many tries', 'There were more than 20 tries in a minute.', 'Wait a minute, then try again.'),
      ),
  });
  router.post('/session', tries, async (request, response) => {
    const { email, password } = bodyOf(request, SignIn);
    const token = await signIn(ground, email, password);
    if (token === null)
      throw problem(
        401,
        'Not signed in',
        'The address or the password is wrong.',
        'Check both; an owner can set a new password.',
      );
    response.cookie(COOKIE, token, { httpOnly: true, sameSite: 'strict', path: '/', maxAge: 14 * 86_400_000 });
    response.status(204).end();
  });
  router.delete('/session', async (request, response) => {
    const token = tokenOf(request);
    if (token) await signOut(ground, token);
    response.clearCookie(COOKIE).status(204).end();
  });
  return router;
}
