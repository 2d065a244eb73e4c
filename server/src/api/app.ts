import { SignIn } from '@grivo/contract';
import express, { type Express } from 'express';
import { rateLimit } from 'express-rate-limit';
import helmet from 'helmet';
import { signIn, signOut } from '../people/sessions.ts';
import type { Product } from '../product.ts';
import { COOKIE, ownOriginOnly, personFrom, signedIn, tokenOf } from './access.ts';
import { articleRoutes } from './articles.ts';
import { briefRoutes } from './briefs.ts';
import { intakeRoutes } from './intake.ts';
import { pageRoutes } from './page.ts';
import { answerProblems, bodyOf, notFound, problem } from './problem.ts';
import { settingsRoutes } from './settings.ts';
import { systemRoutes } from './system.ts';

/** The API and the plain page, as an Express application. */
export function app(product: Product): Express {
  const { ground } = product;
  const server = express();
  server.disable('x-powered-by');
  server.use(
    helmet({
      contentSecurityPolicy: {
        directives: {
          defaultSrc: ["'none'"],
          scriptSrc: ["'self'"],
          styleSrc: ["'self'"],
          imgSrc: ["'self'"],
          connectSrc: ["'self'"],
          fontSrc: ["'self'"],
          formAction: ["'self'"],
          frameAncestors: ["'none'"],
          baseUri: ["'none'"],
          upgradeInsecureRequests: null,
        },
      },
      strictTransportSecurity: false,
    }),
  );
  server.use(ownOriginOnly);
  server.use(express.json({ limit: '2mb' }));
  server.get('/api/health', (_request, response, next) => {
    ground.db
      .rows('SELECT 1')
      .then(() => response.json({ well: true, deskNow: new Date(ground.desk.now()).toISOString() }))
      .catch(next);
  });
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
  server.post('/api/session', tries, async (request, response) => {
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
  server.delete('/api/session', async (request, response) => {
    const token = tokenOf(request);
    if (token) await signOut(ground, token);
    response.clearCookie(COOKIE).status(204).end();
  });
  server.get(
    '/api/session',
    signedIn(ground, 'proofreader'),
    (_request, response) => void response.json(personFrom(response)),
  );
  server.use(
    '/api',
    signedIn(ground, 'proofreader'),
    briefRoutes(product),
    articleRoutes(product),
    intakeRoutes(product),
    settingsRoutes(product),
    systemRoutes(product),
  );
  server.use('/api', (_request, _response, next) => next(notFound('address')));
  server.use(pageRoutes(product));
  server.use(answerProblems(ground.log));
  return server;
}
