import { createHash } from 'node:crypto';
import type { NextFunction, Request, RequestHandler, Response } from 'express';
import type { Ground } from '../ground/ground.ts';
import type { Database } from '../ground/store/database.ts';
import { beginOnce, forgetRequest, keepAnswered, keptRequest } from '../nouns/people/once.ts';
import { personFrom } from './access.ts';
import { problem } from './problem.ts';

/**
 * A request with an Idempotency-Key is done once for each person and key: repeated, it gets the answer of the first. A
 * request that failed leaves nothing behind and may be repeated with its key.
 * @param secret whether the answer holds a secret: of that only is kept that it was given
 */
export function onceByKey({ db }: Ground, secret = false): RequestHandler {
  return (request: Request, response: Response, next: NextFunction) => {
    const key = request.header('idempotency-key');
    if (key === undefined) return next();
    begin({ db, secret, key, request, response }).then((fresh) => {
      if (fresh) next();
    }, next);
  };
}

interface Keyed {
  db: Database;
  secret: boolean;
  key: string;
  request: Request;
  response: Response;
}

/** @returns whether the request is to be done now; where it was done before it is answered */
async function begin(keyed: Keyed): Promise<boolean> {
  const { db, key, request, response } = keyed;
  if (!/^[\x21-\x7e]{1,100}$/.test(key))
    throw problem(400, 'Wrong key', 'Idempotency-Key takes 1 to 100 visible ASCII characters.', 'Send a shorter key.');
  const person = personFrom(response).id;
  const digest = createHash('sha256')
    .update(`${request.method} ${request.originalUrl} ${JSON.stringify(request.body ?? null)}`)
    .digest('hex');
  if (await beginOnce(db, person, key, digest)) {
    keepAnswer(keyed, person);
    return true;
  }
  const { status, body } = answeredBefore(await keptRequest(db, person, key), digest, keyed.secret);
  response.status(status);
  if (body === null) response.end();
  else response.json(body);
  return false;
}

/**
 * The answer of the first.
 * @throws {ProblemError} where there is none to be given
 */
function answeredBefore(
  kept: Awaited<ReturnType<typeof keptRequest>>,
  digest: string,
  secret: boolean,
): { status: number; body: unknown } {
  if (kept && kept.request !== digest)
    throw problem(
      422,
      'Key used before',
      'This Idempotency-Key belongs to another request.',
      'Use a new key for a new request.',
    );
  if (kept?.status === null && kept.late === 1)
    throw problem(
      409,
      'Ended without an answer',
      'The same request was begun and never answered: whether it was done cannot be told from here.',
      'Look whether it was done; if not, send it again with a new key.',
    );
  if (!kept || kept.status === null)
    throw problem(409, 'Still being done', 'The same request is being done now.', 'Ask again in a moment.');
  if (secret)
    throw problem(
      409,
      'Done already',
      'The same request was done, and its answer held a secret that is shown once.',
      'If it was lost, take back what was made and ask anew with another key.',
    );
  return { status: kept.status, body: kept.body };
}

/** Keeps what is answered before it is sent, so that a repeat after a lost answer finds it. */
function keepAnswer({ db, secret, key, response }: Keyed, person: string): void {
  const json = response.json.bind(response);
  const end = response.end.bind(response);
  let kept = false;
  const keep = async (body: unknown): Promise<void> => {
    kept = true;
    const status = response.statusCode;
    if (status < 400) await keepAnswered(db, person, key, { status, body: secret ? null : body });
    else await forgetRequest(db, person, key);
  };
  response.json = (body: unknown) => {
    keep(body ?? null).then(
      () => json(body),
      () => json(body),
    );
    return response;
  };
  response.end = ((...args: Parameters<typeof end>) => {
    if (kept) return end(...args);
    keep(null).then(
      () => end(...args),
      () => end(...args),
    );
    return response;
  }) as typeof response.end;
}
