import type { Request, RequestHandler } from 'express';
import { ipKeyGenerator, rateLimit } from 'express-rate-limit';
import { sha } from '../ground/sha.ts';
import { problem } from './problem.ts';

const MOST_CALLS = 600;
const MOST_STRANGE = 60;

const limit = (most: number, keyGenerator: (request: Request) => string, sentence: string): RequestHandler =>
  rateLimit({
    windowMs: 60_000,
    limit: most,
    standardHeaders: true,
    legacyHeaders: false,
    keyGenerator,
    handler: (_q, _r, next) => next(problem(429, 'Too many calls', sentence, 'Wait a minute, then call again.')),
  });

/** Counts those who try addresses that are none. */
export const strangers = () =>
  limit(
    MOST_STRANGE,
    (request) => ipKeyGenerator(request.ip ?? ''),
    `There were more than ${MOST_STRANGE} calls of unknown addresses in a minute.`,
  );

/**
 * What stands before every address that needs no sign-in: those that are none are counted by who tries them, those that
 * are by themselves, so that nobody who guesses keeps the ones out who know.
 */
export function found(
  isThere: (token: string) => Promise<boolean>,
  noSuch: { title: string; says: string; mend: string },
): RequestHandler[] {
  const strange = strangers();
  const known = limit(
    MOST_CALLS,
    (request) => sha(String(request.params['token'])),
    `There were more than ${MOST_CALLS} calls in a minute.`,
  );
  const none = problem(404, noSuch.title, noSuch.says, noSuch.mend);
  return [
    (request, response, next) => {
      isThere(String(request.params['token'])).then((is) => {
        if (is) void known(request, response, next);
        else void strange(request, response, (error?: unknown) => next(error ?? none));
      }, next);
    },
  ];
}
