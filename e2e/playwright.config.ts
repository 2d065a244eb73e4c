import { defineConfig } from '@playwright/test';
import { SIDE_BY_SIDE } from './ground/sideBySide.ts';

/** Journeys in Debian's Chromium against the running product: real MariaDB, real HTTP to the stand-ins. */
export default defineConfig({
  testDir: import.meta.dirname,
  testMatch: '*.spec.ts',
  globalSetup: './ground/installations.ts',
  workers: SIDE_BY_SIDE,
  timeout: 90_000,
  expect: { timeout: 15_000 },
  reporter: process.env['CI'] ? [['list'], ['json']] : [['list']],
  outputDir: '../test-results',
  use: {
    actionTimeout: 30_000,
    viewport: { width: 1_280, height: 800 },
    timezoneId: 'Europe/Dublin',
    launchOptions: { executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] },
    screenshot: 'only-on-failure',
  },
});
