// Everything that must hold: lint, types, unit tests, then store and engine on a real MariaDB. Ends with 'N passed, N failed'.
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { installMissing, ROOT } from './install.mjs';

installMissing({ browser: true });
const bin = (name) => join(ROOT, 'node_modules', '.bin', name);
const folder = mkdtempSync(join(tmpdir(), 'grivo-results-'));
const report = join(folder, 'vitest.json');
let passed = 0;
let failed = 0;

function part(name, command, args, more = {}) {
  const started = Date.now();
  console.log(`\n── ${name}`);
  const { status } = spawnSync(command, args, {
    stdio: 'inherit',
    cwd: ROOT,
    env: { ...process.env, TZ: 'UTC', ...more },
  });
  console.log(`── ${name}: ${status === 0 ? 'well' : 'FAILED'}, ${((Date.now() - started) / 1_000).toFixed(1)} s`);
  return status === 0;
}

for (const [name, command, args] of [
  ['format and lint', bin('biome'), ['check', '.', '--diagnostic-level=error']],
  ['promises and roads between rooms', bin('eslint'), ['.']],
  ['roads between folders', process.execPath, [join(ROOT, 'scripts', 'roads.mjs')]],
  ['types', process.execPath, [join(ROOT, 'node_modules', 'ts7', 'bin', 'tsc'), '-b']],
]) {
  if (part(name, command, args)) passed++;
  else failed++;
}
const tested = part('tests', bin('vitest'), [
  'run',
  '--reporter=default',
  '--reporter=json',
  `--outputFile.json=${report}`,
]);
try {
  const { numPassedTests, numFailedTests } = JSON.parse(readFileSync(report, 'utf8'));
  passed += numPassedTests;
  failed += numFailedTests;
  if (!tested && numFailedTests === 0) failed++;
} catch {
  failed++;
}
// Journeys in the real browser; the runner's own count is read from its report.
const journeys = join(folder, 'journeys.json');
const walked = part(
  'browser',
  process.execPath,
  [
    '--import',
    'tsx',
    join(ROOT, 'node_modules', '@playwright', 'test', 'cli.js'),
    'test',
    '-c',
    'e2e/playwright.config.ts',
    '--reporter=list,json',
  ],
  {
    PLAYWRIGHT_JSON_OUTPUT_NAME: journeys,
  },
);
try {
  const { stats } = JSON.parse(readFileSync(journeys, 'utf8'));
  passed += stats.expected + stats.flaky;
  failed += stats.unexpected;
  if (!walked && stats.unexpected === 0) failed++;
} catch {
  failed++;
}
// Faults break a whole installation for a minute, from a seed, and count on the receiving side.
if (
  part('faults', process.execPath, [
    join(ROOT, 'scripts', 'faults.mjs'),
    ...['--faults', '40', '--briefs', '20', '--seconds', '60', '--seed', '20261'],
  ])
)
  passed++;
else failed++;
rmSync(folder, { recursive: true, force: true });
console.log(`\n${passed} passed, ${failed} failed`);
process.exitCode = failed === 0 ? 0 : 1;
