import { afterEach, expect, test, vi } from 'vitest';
import { freshKey } from './fresh.ts';

afterEach(() => vi.unstubAllGlobals());

test('fresh keys are single and long enough, also where a browser makes no UUIDs', () => {
  const { getRandomValues } = crypto;
  vi.stubGlobal('crypto', { getRandomValues: getRandomValues.bind(crypto) });
  const keys = Array.from({ length: 1_000 }, freshKey);
  expect(new Set(keys).size).toBe(1_000);
  for (const key of keys) expect(key).toMatch(/^[0-9a-f]{32}$/);
});
