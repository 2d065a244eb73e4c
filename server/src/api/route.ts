import type { Request, Response, Router } from 'express';
import type { z } from 'zod';
import type { Role } from '../nouns/people/entity.ts';
import type { SignedIn } from '../nouns/people/sessions.ts';
import { personFrom, signedIn } from './access.ts';
import { onceByKey } from './idempotency.ts';
import { endsWithProblem, inPieces, type Tell, tellerOf } from './pieces.ts';
import { bodyOf, fitting } from './problem.ts';
import type { Product } from './product.ts';
import type { Together } from './together.ts';

/** What a handler is called with. */
export interface Call<Body, Query> {
  params: Record<string, string>;
  body: Body;
  query: Query;
  person: SignedIn;
  request: Request;
  response: Response;
  /** Tells of a piece of the answer before it is whole. */
  tell: Tell;
}

/** One thing the API does: where it is, what it takes and answers, who may do it. The description is made from it. */
export interface Route<Body = unknown, Query = unknown, Answer = unknown> {
  method: 'get' | 'post' | 'put' | 'patch' | 'delete';
  /** As in OpenAPI: `/briefs/{id}`. */
  path: string;
  /** One line for the description. */
  says: string;
  /** The least role that may do it. */
  role: Role;
  body?: z.ZodType<Body>;
  query?: z.ZodType<Query>;
  /** The answer's shape; without one the answer has no body. */
  answer?: z.ZodType<Answer>;
  /** What of the answer is told before it is whole, to those who accept `text/event-stream`. */
  piece?: z.ZodType;
  /** Status of success; 200, or 204 without an answer. */
  status?: number;
  /** The answer holds a secret and is never kept: it is shown once, or can be asked for again and changes nothing. */
  secret?: 'once' | 'again';
  /** It is the same for everybody: those who ask at the same moment get it worked out once. */
  shared?: boolean;
  /** Answers that are no JSON (files, texts) are written by the handler itself. */
  mime?: string;
  handle(call: Call<Body, Query>): Promise<Answer | void>;
}

/** Keeps the types of body, query and answer together while a list of routes forgets them. */
export function route<Body = undefined, Query = undefined, Answer = undefined>(one: Route<Body, Query, Answer>): Route {
  return one as unknown as Route;
}

/**
 * Holds an answer against what its route promises, as whoever asked gets it: as JSON.
 * @throws {z.ZodError} when it is something else
 */
export function asPromised({ method, path, answer: shape }: Route, answer: unknown): void {
  if (!shape && answer !== undefined) throw new Error(`${method} ${path} answers something and promises nothing`);
  shape?.parse(answer === undefined ? undefined : JSON.parse(JSON.stringify(answer)));
}

/** For what is handed on as it came: shown or played at most, never run. */
const SANDBOX = "sandbox; default-src 'none'; img-src 'self'; media-src 'self'; style-src 'unsafe-inline'";

/** In the place of an answer: it ended with a problem. */
const ENDED = Symbol('ended');

/** Puts routes on a router, each behind sign-in and its schemas. */
export function mount(router: Router, routes: readonly Route[], product: Product, together: Together): void {
  const { ground } = product;
  for (const one of routes) {
    const path = one.path.replace(/\{(\w+)\}/g, ':$1');
    const once = one.method === 'post' && one.secret !== 'again' ? [onceByKey(ground, one.secret === 'once')] : [];
    const pieces = one.piece ? [inPieces] : [];
    router[one.method](
      path,
      signedIn(product, one.role),
      ...pieces,
      ...once,
      async (request: Request, response: Response) => {
        // What is no JSON of ours may hold anything: no browser is to run any of it in our name.
        if (one.mime) response.setHeader('content-security-policy', SANDBOX);
        const work = async () => {
          const answer = await one.handle({
            params: request.params as Record<string, string>,
            body: one.body ? bodyOf(request, one.body) : undefined,
            query: one.query ? fitting(request.query, one.query, 'query') : undefined,
            person: personFrom(response),
            request,
            response,
            tell: tellerOf(response),
          });
          if (!one.mime && (one.piece || !response.headersSent) && product.checksAnswers) asPromised(one, answer);
          return answer;
        };
        if (one.shared) {
          const text = await together.answer(request.originalUrl, work);
          return void response
            .status(one.status ?? 200)
            .type('json')
            .send(text);
        }
        const answer = await work().catch((error: unknown) => {
          if (!endsWithProblem(ground.log, error, request, response)) throw error;
          return ENDED;
        });
        if (answer === ENDED) return;
        if (one.method !== 'get') together.changed();
        if (one.mime || (response.headersSent && !one.piece)) return;
        if (answer === undefined) response.status(one.status ?? 204).end();
        else response.status(one.status ?? 200).json(answer);
      },
    );
  }
}
