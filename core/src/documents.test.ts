import { createHash } from 'node:crypto';
import { expect, test } from 'vitest';
import * as z from 'zod';
import * as core from './index.ts';

/** A short sign of something that is kept as JSON: another where anything of it is. */
const signOf = (value: unknown): string =>
  createHash('sha256')
    .update(JSON.stringify(value) ?? '')
    .digest('hex')
    .slice(0, 16);

/** The shape of documents with their bounds and what is taken where nothing is said. */
const formOf = (schema: z.ZodType): unknown => z.toJSONSchema(schema, { io: 'input', unrepresentable: 'any' });

test('documents that people keep have the form they had: who changes it on purpose renews the list, and says so', async () => {
  const lines = Object.entries(core).flatMap(([name, value]) =>
    value instanceof z.ZodType ? [`${name} ${signOf(formOf(value))}`] : [],
  );
  expect(lines.length).toBeGreaterThan(8);
  await expect(`${lines.sort().join('\n')}\n`).toMatchFileSnapshot('./documents.forms.txt');
});

test('what is shipped and what is begun with is as it was', async () => {
  const { SHIPPED, EMPTY_ARTICLE, PLAIN_STYLE, ONE_OF_EACH_BLOCK, stepKinds } = core;
  const lines = [
    ...SHIPPED.map((one, at) => `shipped ${at} ${signOf(one)}`),
    `empty article ${signOf(EMPTY_ARTICLE)}`,
    `plain style ${signOf(PLAIN_STYLE)}`,
    `new card ${signOf(core.newCard('Card'))}`,
    `one of each block ${signOf(ONE_OF_EACH_BLOCK)}`,
    ...Object.entries(stepKinds).map(([kind, { fresh, ...rest }]) => {
      const says = Object.entries(rest).filter(([, value]) => ['boolean', 'string', 'number'].includes(typeof value));
      return `step ${kind} ${signOf(fresh('s1'))} ${says.map(([name, value]) => `${name}: ${value}`).join(', ')}`;
    }),
  ];
  await expect(`${lines.join('\n')}\n`).toMatchFileSnapshot('./documents.shipped.txt');
});
