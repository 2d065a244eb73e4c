import { SignIn } from '@grivo/contract';
import { type Request, type Response, Router } from 'express';
import { ipKeyGenerator, rateLimit } from 'express-rate-limit';
import { noteAct } from '../nouns/people/acts.ts';
import { signIn, signOut } from '../nouns/people/sessions.ts';
import { actorOf, cookieName, isSecure, tokenOf, whoCalls } from './access.ts';
import { tellSessions } from './events.ts';
import { bodyOf, problem } from './problem.ts';
import type { Product } from './product.ts';

const MINUTE = 60_000;

const addressOf = (request: Request): string => ipKeyGenerator(request.ip ?? '');
const accountOf = (request: Request): string => {
  const email: unknown = (request.body as { email?: unknown } | undefined)?.email;
  return typeof email === 'string' ? email.trim().toLowerCase().slice(0, 190) : '';
};

/** Only tries that fail count: who signs in rightly is not kept out by it. */
function failures(limit: number, minutes: number, keyGenerator: (request: Request) => string, sentence: string) {
  return rateLimit({
    windowMs: minutes * MINUTE,
    limit,
    standardHeaders: true,
    legacyHeaders: false,
    skipSuccessfulRequests: true,
    keyGenerator,
    handler: (_q, _r, next) =>
      next(
        problem(
          429,
          'Too many tries',
          sentence,
          minutes === 1 ? 'Wait a minute, then try again.' : `Wait ${minutes} minutes, then try again.`,
        ),
      ),
  });
}

/**
 * Signing in and out. Tries are limited by where they come from, by the account from there, and by the account from
 * anywhere, so that neither many addresses nor many accounts help to guess.
 */
export function sessionRoutes(product: Product): Router {
  const { ground } = product;
  const router = Router();
  const limits = [
    failures(20, 1, addressOf, 'There were more than 20 wrong tries in a minute.'),
    failures(
      10,
      15,
      (request) => `${addressOf(request)} ${accountOf(request)}`,
      'There were more than 10 wrong tries for this account.',
    ),
    failures(60, 15, accountOf, 'There were more than 60 wrong tries for this account.'),
  ];
  router.post('/session', ...limits, async (request: Request, response: Response) => {
    const { email, password } = bodyOf(request, SignIn);
    const signed = await signIn(ground, email, password, {
      from: request.ip ?? '',
      agent: request.headers['user-agent'] ?? '',
    });
    if (signed === null) {
      ground.log.info({ from: request.ip }, 'a sign-in was refused');
      throw problem(
        401,
        'Not signed in',
        'The address or the password is wrong.',
        'Check both; an owner can set a new password.',
      );
    }
    await noteAct(ground, actorOf(signed.person, request), 'signed in', signed.person.name);
    const secure = isSecure(product, request);
    response.cookie(cookieName(secure), signed.token, {
      httpOnly: true,
      sameSite: 'strict',
      secure,
      path: '/',
      maxAge: 14 * 86_400_000,
    });
    response.status(204).end();
  });
  router.delete('/session', async (request: Request, response: Response) => {
    const token = tokenOf(product, request);
    if (token) {
      const person = await whoCalls(product, request);
      await signOut(ground, token);
      if (person) await tellSessions(product, person.id);
    }
    const secure = isSecure(product, request);
    response.clearCookie(cookieName(secure), { httpOnly: true, sameSite: 'strict', secure, path: '/' });
    response.status(204).end();
  });
  return router;
}
