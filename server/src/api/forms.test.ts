import { createHash } from 'node:crypto';
import * as contract from '@grivo/contract';
import { expect, test } from 'vitest';
import * as z from 'zod';

/** What is asked and answered, with its bounds; a short sign, another where anything of it is. */
const signOf = (schema: z.ZodType): string =>
  createHash('sha256')
    .update(JSON.stringify(z.toJSONSchema(schema, { io: 'input', unrepresentable: 'any' })))
    .digest('hex')
    .slice(0, 16);

test('what is asked and answered has the form it had: who changes it on purpose renews the list, and says so', async () => {
  const lines = Object.entries(contract).flatMap(([name, value]) =>
    value instanceof z.ZodType ? [`${name} ${signOf(value)}`] : [],
  );
  expect(lines.length).toBeGreaterThan(100);
  await expect(`${lines.sort().join('\n')}\n`).toMatchFileSnapshot('./forms.txt');
});
