import { Problem } from '@grivo/contract';
import { z } from 'zod';
import type { Route } from './route.ts';

type Json = Record<string, unknown>;

const PROBLEM = {
  description: 'What is wrong, where, and what mends it (RFC 9457)',
  content: { 'application/problem+json': { schema: { $ref: '#/components/schemas/Problem' } } },
};

/** The description of the API (OpenAPI 3.1), made from the same schemas that check requests. */
export function openApi(routes: readonly Route[], version: string): Json {
  const schemas = new Shapes();
  schemas.add('Problem', Problem, 'output');
  const paths: Record<string, Json> = {};
  for (const one of routes) {
    paths[one.path] ??= {};
    paths[one.path]![one.method] = operation(one, schemas);
  }
  return {
    openapi: '3.1.0',
    info: {
      title: 'Grivo',
      version,
      description: 'Everything the screens do can be done here.',
      license: { name: 'MIT', identifier: 'MIT' },
    },
    servers: [{ url: '/api' }],
    security: [{ session: [] }, { key: [] }],
    paths,
    components: {
      schemas: schemas.all,
      securitySchemes: {
        session: {
          type: 'apiKey',
          in: 'cookie',
          name: 'grivo_session',
          description:
            'The session of a person, given by POST /session; behind https it is named __Host-grivo_session.',
        },
        key: { type: 'http', scheme: 'bearer', description: 'A key made under Settings, for programs.' },
      },
    },
  };
}

const ONCE = {
  name: 'Idempotency-Key',
  in: 'header',
  required: false,
  description: 'Repeating a request with the same key answers as the first did and does nothing again.',
  schema: { type: 'string', maxLength: 100 },
};

function operation(one: Route, schemas: Shapes): Json {
  const id = `${one.method}${one.path
    .split(/[^A-Za-z]+/)
    .map((word) => word.charAt(0).toUpperCase() + word.slice(1))
    .join('')}`;
  const names = [...one.path.matchAll(/\{(\w+)\}/g)].map((match) => match[1]!);
  const query = one.query
    ? (schemas.of(`${id}Query`, one.query, 'input') as { properties?: Json; required?: string[] })
    : {};
  const parameters = [
    ...names.map((name) => ({ name, in: 'path', required: true, schema: { type: 'string' } })),
    ...Object.entries(query.properties ?? {}).map(([name, schema]) => ({
      name,
      in: 'query',
      required: query.required?.includes(name) ?? false,
      schema,
    })),
    ...(one.method === 'post' ? [ONCE] : []),
  ];
  const success = String(one.status ?? (one.answer || one.mime ? 200 : 204));
  const changes = one.method !== 'get';
  return {
    summary: one.says,
    operationId: id,
    'x-role': one.role,
    ...(parameters.length > 0 ? { parameters } : {}),
    ...(one.body
      ? {
          requestBody: {
            required: true,
            content: { 'application/json': { schema: schemas.of(`${id}Body`, one.body, 'input') } },
          },
        }
      : {}),
    responses: {
      [success]: {
        description: 'Done',
        ...(one.answer ? { content: answersOf(one, id, schemas) } : {}),
        ...(one.mime ? { content: { [one.mime]: {} } } : {}),
      },
      '401': PROBLEM,
      '403': PROBLEM,
      ...(names.length > 0 ? { '404': PROBLEM } : {}),
      ...(changes ? { '409': PROBLEM } : {}),
      ...(one.body || one.query ? { '422': PROBLEM } : {}),
      '429': PROBLEM,
      default: PROBLEM,
    },
  };
}

/** What is answered, whole or, where it can be heard while it is made, in pieces with the whole at the end. */
function answersOf({ answer, piece }: Route, id: string, schemas: Shapes): Json {
  return {
    'application/json': { schema: schemas.of(`${id}Answer`, answer!, 'output') },
    ...(piece ? { 'text/event-stream': { schema: schemas.of(`${id}Piece`, piece, 'output') } } : {}),
  };
}

/** Schemas of the description: what one of them defines for itself, as steps within steps, stands among those of all. */
class Shapes {
  readonly all: Record<string, Json> = {};
  private readonly known = new Map<string, string>();

  add(name: string, schema: z.ZodType, io: 'input' | 'output'): void {
    this.all[name] = this.of(name, schema, io);
  }

  of(name: string, schema: z.ZodType, io: 'input' | 'output'): Json {
    const {
      $schema: _,
      $defs = {},
      ...json
    } = z.toJSONSchema(schema, { io, unrepresentable: 'any' }) as Json & {
      $defs?: Record<string, Json>;
    };
    const text = JSON.stringify($defs);
    const names = new Map(
      Object.keys($defs).map((def, i) => {
        const key = `${def} ${text}`;
        const known = this.known.get(key) ?? `${name}Part${i + 1}`;
        this.known.set(key, known);
        return [`#/$defs/${def}`, known];
      }),
    );
    const moved = <T>(value: T): T => {
      if (Array.isArray(value)) return value.map(moved) as T;
      if (typeof value !== 'object' || value === null) return value;
      return Object.fromEntries(
        Object.entries(value).map(([key, one]) => {
          const to = key === '$ref' && typeof one === 'string' ? names.get(one) : undefined;
          return [key, to === undefined ? moved(one) : `#/components/schemas/${to}`];
        }),
      ) as T;
    };
    for (const [def, shape] of Object.entries($defs)) this.all[names.get(`#/$defs/${def}`)!] = moved(shape);
    return moved(json);
  }
}
