import SwaggerParser from '@apidevtools/swagger-parser';
import { Validator } from '@seriousme/openapi-schema-validator';
import { beforeAll, expect, test } from 'vitest';
import { allRoutes, description } from './app.ts';
import type { Product } from './product.ts';

/** Making the routes asks nothing of the product. */
const nobody = new Proxy({}, { get: () => nobody }) as unknown as Product;

let said: Record<string, unknown>;
beforeAll(() => {
  said = JSON.parse(JSON.stringify(description(allRoutes(nobody)))) as Record<string, unknown>;
});

test('the description of the API is valid by two validators that know nothing of each other', async () => {
  const { valid, errors } = await new Validator().validate(structuredClone(said));
  expect(errors ?? []).toEqual([]);
  expect(valid).toBe(true);
  await expect(SwaggerParser.validate(structuredClone(said) as never)).resolves.toMatchObject({ openapi: '3.1.0' });
});

test('every reference leads somewhere, every act has its name, says who may do it, and how it is refused', () => {
  const { schemas } = said['components'] as { schemas: Record<string, unknown> };
  const references = [...JSON.stringify(said).matchAll(/"\$ref":"([^"]+)"/g)].map(([, to]) => to!);
  expect(references.length).toBeGreaterThan(100);
  for (const to of references) expect(schemas, to).toHaveProperty([to.replace('#/components/schemas/', '')]);
  const acts = Object.values(said['paths'] as Record<string, Record<string, Record<string, unknown>>>).flatMap((path) =>
    Object.values(path),
  );
  expect(new Set(acts.map((act) => act['operationId'])).size).toBe(acts.length);
  for (const act of acts) {
    expect(Object.keys(act['responses'] as object)).toEqual(expect.arrayContaining(['401', '403', '429', 'default']));
    expect(act['x-role']).toBeTruthy();
  }
  expect(said['security']).toEqual([{ session: [] }, { key: [] }]);
});

test('an answer that can be heard while it is made says what comes of it before', () => {
  const paths = said['paths'] as Record<string, Record<string, { responses: Record<string, { content: object }> }>>;
  const { content } = paths['/articles/{id}/anew']!['post']!.responses['200']!;
  expect(Object.keys(content)).toEqual(['application/json', 'text/event-stream']);
  expect(content).toMatchObject({ 'text/event-stream': { schema: { properties: { text: { type: 'string' } } } } });
});
