import { mkdtempSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import type { TestProject } from 'vitest/node';

/** One MariaDB a run, its data in memory and without flushing: what is tested here is right or wrong, not durable. */
export default async function database(project: TestProject): Promise<() => Promise<void>> {
  const { startMariadb } = (await import('../../../scripts/mariadb.mjs' as string)) as {
    startMariadb: (folder: string, options: object) => Promise<{ url: string; stop(): Promise<void> }>;
  };
  const folder = mkdtempSync(join('/dev/shm', 'grivo-test-'));
  const mariadb = await startMariadb(folder, { durable: false });
  project.provide('databaseUrl', mariadb.url);
  return async () => {
    await mariadb.stop();
    rmSync(folder, { recursive: true, force: true });
  };
}

declare module 'vitest' {
  interface ProvidedContext {
    databaseUrl: string;
  }
}
