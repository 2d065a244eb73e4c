import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { FUNCTIONS } from '@grivo/core';
import { expect, test } from 'vitest';

test('every function of expressions stands on its page, with what it gives', () => {
  const page = readFileSync(join(import.meta.dirname, '../../../../docs/expressions.md'), 'utf8');
  for (const { call, says } of Object.values(FUNCTIONS)) {
    expect(page, call).toContain(`\`${call}\``);
    expect(page, call).toContain(says);
  }
});
