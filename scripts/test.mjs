// Everything that must hold: lint, types, unit tests, store and engine on a real MariaDB, journeys in the real browser,
// faults. Ends with the slowest tests, what failed by name, and 'N passed, N failed'.
import { spawn } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, relative } from 'node:path';
import { installMissing, ROOT } from './install.mjs';

installMissing({ browser: true });
const bin = (name) => join(ROOT, 'node_modules', '.bin', name);
const script = (name) => join(ROOT, 'scripts', `${name}.mjs`);
const folder = mkdtempSync(join(tmpdir(), 'grivo-results-'));
const results = { unit: join(folder, 'vitest.json'), journeys: join(folder, 'journeys.json') };
/** Of all tests that many are named, those that took longest first. */
const NAMED = 20;
let passed = 0;
/** What failed, by name: said once more at the end, where it is looked for. */
const failures = [];
const took = [];

/**
 * Runs one part. What it says is shown as it comes, or when it has ended where several go on at once.
 * @returns {Promise<{ name: string, well: boolean }>}
 */
function part(name, [command, ...args], { atOnce = false, env = {} } = {}) {
  const begun = Date.now();
  if (!atOnce) console.log(`\n── ${name}`);
  const child = spawn(command, args, {
    stdio: atOnce ? 'pipe' : 'inherit',
    cwd: ROOT,
    env: { ...process.env, TZ: 'UTC', ...env },
  });
  let says = '';
  for (const stream of [child.stdout, child.stderr])
    stream?.on('data', (chunk) => {
      says += chunk;
    });
  return new Promise((resolve) => {
    child.once('close', (code) => {
      if (atOnce) console.log(`\n── ${name}\n${says.trimEnd()}`);
      console.log(`── ${name}: ${code === 0 ? 'well' : 'FAILED'}, ${((Date.now() - begun) / 1_000).toFixed(1)} s`);
      resolve({ name, well: code === 0 });
    });
  });
}

const count = ({ name, well }) => {
  if (well) passed++;
  else failures.push(name);
};

// What only reads goes side by side: linting with types keeps one processor busy, everything else the other.
const reading = await Promise.all(
  [
    ['promises and roads between rooms', [bin('eslint'), '.']],
    ['format and lint', [bin('biome'), 'check', '.', '--diagnostic-level=error']],
    ['roads between folders', [process.execPath, script('roads')]],
    ['lengths', [process.execPath, script('lengths')]],
    ['types', [process.execPath, join(ROOT, 'node_modules', 'ts7', 'bin', 'tsc'), '-b']],
  ].map(([name, command]) => part(name, command, { atOnce: true })),
);
for (const ended of reading) count(ended);

const tested = await part('tests', [
  bin('vitest'),
  'run',
  '--reporter=default',
  '--reporter=json',
  `--outputFile.json=${results.unit}`,
]);
try {
  const report = JSON.parse(readFileSync(results.unit, 'utf8'));
  passed += report.numPassedTests;
  const before = failures.length;
  for (const { name, assertionResults } of report.testResults)
    for (const { title, duration, status } of assertionResults) {
      const test = `${relative(ROOT, name)}: ${title}`;
      took.push({ ms: duration ?? 0, name: test });
      if (status === 'failed') failures.push(test);
    }
  if (!tested.well && failures.length === before) failures.push('tests: the run itself');
} catch {
  failures.push('tests: no report');
}

// Journeys in the real browser; the runner's own count is read from its report.
const walked = await part(
  'browser',
  [
    process.execPath,
    '--import',
    'tsx',
    join(ROOT, 'node_modules', '@playwright', 'test', 'cli.js'),
    'test',
    '-c',
    'e2e/playwright.config.ts',
    '--reporter=list,json',
  ],
  { env: { PLAYWRIGHT_JSON_OUTPUT_NAME: results.journeys } },
);
try {
  const { stats, suites } = JSON.parse(readFileSync(results.journeys, 'utf8'));
  passed += stats.expected + stats.flaky;
  const before = failures.length;
  const walk = (suite) => {
    for (const spec of suite.specs ?? [])
      for (const { results: runs, status } of spec.tests) {
        const test = `e2e/${spec.file}: ${spec.title}`;
        took.push({ ms: runs.at(-1)?.duration ?? 0, name: test });
        if (status === 'unexpected') failures.push(test);
      }
    for (const inner of suite.suites ?? []) walk(inner);
  };
  for (const suite of suites) walk(suite);
  if (!walked.well && failures.length === before) failures.push('browser: the run itself');
} catch {
  failures.push('browser: no report');
}

// Faults break a whole installation for a minute, from a seed, and count on the receiving side.
const faults = ['--faults', '40', '--briefs', '20', '--seconds', '60', '--seed', '20261'];
count(await part('faults', [process.execPath, script('faults'), ...faults]));
rmSync(folder, { recursive: true, force: true });

console.log(`\nThe slowest ${NAMED} of ${took.length}, in seconds:`);
for (const { ms, name } of took.sort((a, b) => b.ms - a.ms).slice(0, NAMED))
  console.log(`${(ms / 1_000).toFixed(1).padStart(6)}  ${name}`);
if (failures.length > 0) console.log(`\nFailed:\n${failures.map((name) => `  ${name}`).join('\n')}`);
console.log(`\n${passed} passed, ${failures.length} failed`);
process.exitCode = failures.length === 0 ? 0 : 1;
