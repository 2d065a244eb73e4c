import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    env: { TZ: 'UTC' },
    projects: [
      {
        extends: true,
        test: {
          name: 'unit',
          globalSetup: ['server/test/ground/reading.ts'],
          // No test is timed; the limit only ends one that hangs, also on a machine that does other things.
          testTimeout: 60_000,
          include: [
            'core/src/**/*.test.ts',
            'contract/src/**/*.test.ts',
            'server/src/**/*.test.ts',
            'standins/src/**/*.test.ts',
            'web/src/**/*.test.{ts,tsx}',
          ],
        },
      },
      {
        extends: true,
        test: {
          name: 'store',
          include: ['server/test/**/*.test.ts'],
          globalSetup: ['server/test/ground/reading.ts', 'server/test/ground/database.ts'],
          maxWorkers: 2,
          sequence: { groupOrder: 1 },
          testTimeout: 60_000,
          hookTimeout: 60_000,
        },
      },
    ],
  },
});
