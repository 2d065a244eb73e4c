import { writeFileSync } from 'node:fs';
import { Session } from 'node:inspector/promises';
import { basename, join, relative } from 'node:path';
import { afterAll, beforeAll, expect } from 'vitest';

/** Tells which functions the tests of a file reach, where somebody wants to know. */
const folder = process.env['GRIVO_REACH'];
const ROOT = join(import.meta.dirname, '../../..');

if (folder) {
  const session = new Session();
  const began = Date.now();
  session.connect();
  beforeAll(async () => {
    await session.post('Profiler.enable');
    await session.post('Profiler.startPreciseCoverage', { callCount: true, detailed: false });
  });
  afterAll(async () => {
    const { result } = await session.post('Profiler.takePreciseCoverage');
    const reached: Record<string, string[]> = {};
    for (const { url, functions } of result) {
      const file = relative(ROOT, url.replace(/^file:\/\//, '').replace(/\?.*$/, ''));
      if (!/^(?:core|server)\/src\/.*\.ts$/.test(file)) continue;
      const names = functions
        .filter(({ ranges }) => (ranges[0]?.count ?? 0) > 0)
        .map(({ functionName }) => functionName);
      reached[file] = [...new Set([...(reached[file] ?? []), ...names.filter((name) => name !== '')])];
    }
    const test = relative(ROOT, expect.getState().testPath ?? '');
    writeFileSync(
      join(folder, `${basename(test)}-${process.pid}-${began}.json`),
      JSON.stringify({ test, ms: Date.now() - began, reached }),
    );
  });
}
