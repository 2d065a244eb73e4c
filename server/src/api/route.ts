import type { Request, Response, Router } from 'express';
import { z } from 'zod';
import type { Role } from '../people/entity.ts';
import type { SignedIn } from '../people/sessions.ts';
import type { Product } from '../product.ts';
import { personFrom, signedIn } from './access.ts';
import { onceByKey } from './idempotency.ts';
import { bodyOf, fitting } from './problem.ts';

/** What a handler is called with. */
export interface Call<Body, Query> {
  params: Record<string, string>;
  body: Body;
  query: Query;
  person: SignedIn;
  request: Request;
  response: Response;
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
  /** Status of success; 200, or 204 without an answer. */
  status?: number;
  /** The answer holds a secret and is never kept: it is shown once, or can be asked for again and changes nothing. */
  secret?: 'once' | 'again';
  /** Answers that are no JSON (files, texts) are written by the handler itself. */
  mime?: string;
  handle(call: Call<Body, Query>): Promise<Answer | void>;
}

/** Keeps the types of body, query and answer together while a list of routes forgets them. */
export function route<Body = undefined, Query = undefined, Answer = undefined>(one: Route<Body, Query, Answer>): Route {
  return one as unknown as Route;
}

/** For what is handed on as it came: shown or played at most, never run. */
const SANDBOX = "sandbox; default-src 'none'; img-src 'self'; media-src 'self'; style-src 'unsafe-inline'";

/** Puts routes on a router, each behind sign-in and its schemas. */
export function mount(router: Router, routes: readonly Route[], product: Product): void {
  const { ground } = product;
  for (const one of routes) {
    const path = one.path.replace(/\{(\w+)\}/g, ':$1');
    const once = one.method === 'post' && one.secret !== 'again' ? [onceByKey(ground, one.secret === 'once')] : [];
    router[one.method](path, signedIn(product, one.role), ...once, async (request: Request, response: Response) => {
      // What is no JSON of ours may hold anything: no browser is to run any of it in our name.
      if (one.mime) response.setHeader('content-security-policy', SANDBOX);
      const answer = await one.handle({
        params: request.params as Record<string, string>,
        body: one.body ? bodyOf(request, one.body) : undefined,
        query: one.query ? fitting(request.query, one.query, 'query') : undefined,
        person: personFrom(response),
        request,
        response,
      });
      if (one.mime || response.headersSent) return;
      if (answer === undefined) response.status(one.status ?? 204).end();
      else response.status(one.status ?? 200).json(answer);
    });
  }
}

type Json = Record<string, unknown>;

/** The description of the API (OpenAPI 3.1), made from the same schemas that check requests. */
export function openApi(routes: readonly Route[], version: string): Json {
  const paths: Record<string, Json> = {};
  for (const one of routes) {
    const names = [...one.path.matchAll(/\{(\w+)\}/g)].map((match) => match[1]!);
    const query = one.query ? (schemaOf(one.query, 'input') as { properties?: Json; required?: string[] }) : {};
    const parameters = [
      ...names.map((name) => ({ name, in: 'path', required: true, schema: { type: 'string' } })),
      ...Object.entries(query.properties ?? {}).map(([name, schema]) => ({
        name,
        in: 'query',
        required: query.required?.includes(name) ?? false,
        schema,
      })),
      ...(one.method === 'post'
        ? [
            {
              name: 'Idempotency-Key',
              in: 'header',
              required: false,
              description: 'Repeating a request with the same key answers as the first did and does nothing again.',
              schema: { type: 'string', maxLength: 100 },
            },
          ]
        : []),
    ];
    const success = String(one.status ?? (one.answer || one.mime ? 200 : 204));
    paths[one.path] ??= {};
    paths[one.path]![one.method] = {
      summary: one.says,
      operationId: `${one.method}${one.path
        .split(/[^A-Za-z]+/)
        .map((word) => word.charAt(0).toUpperCase() + word.slice(1))
        .join('')}`,
      'x-role': one.role,
      ...(parameters.length > 0 ? { parameters } : {}),
      ...(one.body
        ? { requestBody: { required: true, content: { 'application/json': { schema: schemaOf(one.body, 'input') } } } }
        : {}),
      responses: {
        [success]: {
          description: 'Done',
          ...(one.answer ? { content: { 'application/json': { schema: schemaOf(one.answer, 'output') } } } : {}),
          ...(one.mime ? { content: { [one.mime]: {} } } : {}),
        },
        default: {
          description: 'What is wrong, and what mends it (RFC 9457)',
          content: { 'application/problem+json': { schema: { $ref: '#/components/schemas/Problem' } } },
        },
      },
    };
  }
  return {
    openapi: '3.1.0',
    info: { title: 'Grivo', version, description: 'Everything the screens do can be done here.' },
    servers: [{ url: '/api' }],
    paths,
    components: { schemas: {} as Json },
  };
}

export function schemaOf(schema: z.ZodType, io: 'input' | 'output'): Json {
  const { $schema: _, ...json } = z.toJSONSchema(schema, { io, unrepresentable: 'any' }) as Json;
  return json;
}
