import { defineConfig } from 'vitest/config';

/** Only where it is asked which tests reach what. */
const REACH = process.env['GRIVO_REACH'] ? ['server/test/ground/reach.ts'] : [];

export default defineConfig({
  test: {
    env: { TZ: 'UTC' },
    projects: [
      {
        extends: true,
        test: {
          name: 'unit',
          globalSetup: ['server/test/ground/reading.ts'],
          setupFiles: REACH,
          // Nothing here keeps anything from one file to the next, and loading everything anew for each took longer than all tests.
          isolate: false,
          // No test is timed; the limit only ends one that hangs, also on a machine that does other things.
          testTimeout: 60_000,
          include: [
            'core/src/**/*.test.ts',
            'contract/src/**/*.test.ts',
            'server/src/**/*.test.ts',
            'standins/src/**/*.test.ts',
            'web/src/**/*.test.ts',
          ],
        },
      },
      {
        extends: true,
        test: {
          name: 'screens',
          testTimeout: 60_000,
          include: ['web/src/**/*.test.tsx'],
        },
      },
      {
        extends: true,
        test: {
          name: 'store',
          // Loading the whole product anew for each file took a third of the time; each makes a database of its own.
          isolate: false,
          include: ['server/test/**/*.test.ts', 'scripts/**/*.test.mjs'],
          globalSetup: ['server/test/ground/reading.ts', 'server/test/ground/database.ts'],
          setupFiles: REACH,
          maxWorkers: 2,
          sequence: { groupOrder: 1 },
          testTimeout: 60_000,
          hookTimeout: 60_000,
        },
      },
    ],
  },
});
