import { createHash } from 'node:crypto';
import type { NextFunction, Request, RequestHandler, Response } from 'express';
import type { Ground } from '../ground/ground.ts';
import { personFrom } from './access.ts';
import { problem } from './problem.ts';

interface Kept {
  request: string;
  status: number | null;
  body: unknown;
  /** Whether it was begun so long ago that nobody is still at it. */
  late: number;
}

/** No request takes longer: a look at a source, the longest, is given up after five minutes. */
const LATE_SECONDS = 900;

/**
 * A request with an Idempotency-Key is done once for each person and key: repeated, it gets the answer of the first. A
 * request that failed leaves nothing behind and may be repeated with its key.
 * @param secret whether the answer holds a secret: of that only is kept that it was given
 */
export function onceByKey({ db }: Ground, secret = false): RequestHandler {
  return (request: Request, response: Response, next: NextFunction) => {
    const key = request.header('idempotency-key');
    if (key === undefined) return next();
    begin(request, response, key).then((fresh) => {
      if (fresh) next();
    }, next);
  };

  /** @returns whether the request is to be done now */
  async function begin(request: Request, response: Response, key: string): Promise<boolean> {
    if (!/^[\x21-\x7e]{1,100}$/.test(key))
      throw problem(
        400,
        'Wrong key',
        'Idempotency-Key takes 1 to 100 visible ASCII characters.',
        'Send a shorter key.',
      );
    const person = personFrom(response).id;
    const digest = createHash('sha256')
      .update(`${request.method} ${request.originalUrl} ${JSON.stringify(request.body ?? null)}`)
      .digest('hex');
    const made = await db.run('INSERT IGNORE INTO idempotency (person, key_, request) VALUES (?, ?, ?)', [
      person,
      key,
      digest,
    ]);
    if (made === 0) {
      const [kept] = await db.rows<Kept>(
        'SELECT request, status, body, at < DATE_SUB(UTC_TIMESTAMP(3), INTERVAL ? SECOND) AS late FROM idempotency WHERE person = ? AND key_ = ?',
        [LATE_SECONDS, person, key],
      );
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
      response.status(kept.status);
      if (kept.body === null) response.end();
      else response.json(kept.body);
      return false;
    }
    keepAnswer(response, person, key);
    return true;
  }

  /** Keeps what is answered before it is sent, so that a repeat after a lost answer finds it. */
  function keepAnswer(response: Response, person: string, key: string): void {
    const json = response.json.bind(response);
    const end = response.end.bind(response);
    let kept = false;
    const keep = async (body: unknown): Promise<void> => {
      kept = true;
      if (response.statusCode < 400)
        await db.run('UPDATE idempotency SET status = ?, body = ? WHERE person = ? AND key_ = ?', [
          response.statusCode,
          body === null || secret ? null : JSON.stringify(body),
          person,
          key,
        ]);
      else await db.run('DELETE FROM idempotency WHERE person = ? AND key_ = ?', [person, key]);
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
}
