// Do the tests notice? Draws small faults over core, engine, nouns and ports, puts each in by itself, and runs the tests that
// reach its function, the quickest first, until one fails. npm run mutants -- --seed N --count 50
import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync, statSync, utimesSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { installMissing, ROOT } from './install.mjs';
import { chance, faultsIn } from './mutants/draw.mjs';

installMissing();
const given = (name, otherwise) => {
  const at = process.argv.indexOf(`--${name}`);
  return at < 0 ? otherwise : Number(process.argv[at + 1]);
};
const [SEED, COUNT] = [given('seed', 1), given('count', 50)];
const DRAWN_OVER = ['core/src', 'server/src/engine', 'server/src/nouns', 'server/src/ports'];
const REACH = join(ROOT, '.cache', 'reach');
/** Changes that change nothing anybody could see, each with the reason. */
const EQUAL = join(ROOT, 'scripts', 'mutants', 'equal.json');
const LIMIT_MS = 15 * 60_000;
/** Files of tests that are run at once to find out what they reach. */
const AT_ONCE = 40;

/** Runs tests, beside which signals are heard. @returns whether all of them pass */
const pass = (args, more = {}) =>
  new Promise((resolve) => {
    const run = spawn(join(ROOT, 'node_modules', '.bin', 'vitest'), ['run', ...args], {
      cwd: ROOT,
      env: { ...process.env, TZ: 'UTC', ...more },
      stdio: 'ignore',
      detached: true,
    });
    running = run;
    const late = setTimeout(() => end(run), LIMIT_MS);
    run.on('close', (code) => {
      clearTimeout(late);
      end(run);
      resolve(code === 0);
    });
  });
let running = null;

/** Ends a run with all it began: a fault may be a loop without an end, whose process would outlive it. */
function end({ pid }) {
  try {
    process.kill(-pid, 'SIGKILL');
  } catch {
    // All of it has ended.
  }
}

const CODE = /(?<!\.test)\.ts$/;
function files(of, named) {
  return readdirSync(join(ROOT, of), { recursive: true, encoding: 'utf8' })
    .filter((name) => named.test(name) && !name.includes('node_modules'))
    .map((name) => `${of}/${name}`);
}

/** Which tests reach which functions, found by a run of all of them; kept until a file changes. */
async function reached() {
  const newest = Math.max(
    ...['core', 'contract', 'server', 'standins'].flatMap((room) =>
      readdirSync(join(ROOT, room), { recursive: true, encoding: 'utf8' })
        .filter((name) => name.endsWith('.ts') && !name.includes('node_modules'))
        .map((name) => statSync(join(ROOT, room, name)).mtimeMs),
    ),
  );
  const done = join(REACH, 'done');
  if (!existsSync(done) || statSync(done).mtimeMs < newest) {
    mkdirSync(REACH, { recursive: true });
    rmSync(done, { force: true });
    // What was found by a run that was ended is kept, as long as no file changed since.
    for (const { name, at } of found()) if (at < newest) rmSync(join(REACH, name));
    const known = new Set(found().map(({ test }) => test));
    const missing = ['core', 'contract', 'server']
      .flatMap((of) => files(of, /\.test\.ts$/))
      .filter((test) => !known.has(test));
    console.log(`which tests reach what is found out by a run of ${missing.length} of their files …`);
    for (let at = 0; at < missing.length; at += AT_ONCE) {
      const some = missing.slice(at, at + AT_ONCE);
      if (await pass(some, { GRIVO_REACH: REACH })) continue;
      // A machine that was busy meanwhile is no fault of theirs: one by one.
      const fail = [];
      for (const test of some) if (!(await pass([test], { GRIVO_REACH: REACH }))) fail.push(test);
      if (fail.length > 0) throw new Error(`tests fail as they are: ${fail.join(', ')}`);
    }
    writeFileSync(done, '');
  }
  return found();
}

/** What was found of each file of tests, and when. */
const found = () =>
  readdirSync(REACH)
    .filter((name) => name.endsWith('.json'))
    .map((name) => {
      const path = join(REACH, name);
      return { name, at: statSync(path).mtimeMs, ...JSON.parse(readFileSync(path, 'utf8')) };
    });

const tests = await reached();
/** Files of tests that are run for a fault at most, and for how long new ones are begun; what only a later one would notice counts as missed. */
const MOST_TESTS = 24;
const MOST_MS = 300_000;

/** How far a file of tests is from what it tests: beside it, in its room, or elsewhere. */
const distance = (test, file) =>
  dirname(test) === dirname(file) ? 0 : test.split('/')[0] === file.split('/')[0] ? 1 : 2;

/** Tests that reach a function, the nearest and quickest first; of code outside of functions, those that reach the file. */
function testsOf(file, of) {
  const reach = tests.filter(({ reached }) => reached[file] && (of === '' || reached[file].includes(of)));
  const any = reach.length > 0 ? reach : tests.filter(({ reached }) => reached[file]);
  return any
    .sort((a, b) => distance(a.test, file) - distance(b.test, file) || a.ms - b.ms)
    .slice(0, MOST_TESTS)
    .map(({ test }) => test);
}

const equal = existsSync(EQUAL) ? JSON.parse(readFileSync(EQUAL, 'utf8')) : [];
const isEqual = (file, line, what) => equal.find((one) => one.file === file && one.line === line && one.what === what);

const all = DRAWN_OVER.flatMap((of) => files(of, CODE)).flatMap((file) =>
  faultsIn(file, readFileSync(join(ROOT, file), 'utf8')).map((fault) => ({ file, ...fault })),
);
const random = chance(SEED);
const drawn = all
  .map((fault) => ({ fault, at: random() }))
  .sort((a, b) => a.at - b.at)
  .map(({ fault }) => fault);
console.log(`${all.length} faults could be made; seed ${SEED}, ${COUNT} are`);

const open = new Map();
const restore = () => {
  for (const [path, { text, mtime }] of open) {
    writeFileSync(path, text);
    // It is as it was, and was not changed: what tests reach is still so for the next seed.
    utimesSync(path, mtime, mtime);
  }
  open.clear();
};
for (const signal of ['SIGINT', 'SIGTERM'])
  process.on(signal, () => {
    if (running) end(running);
    restore();
    process.exit(1);
  });

const figures = { mutants: 0, noticed: 0, equal: 0 };
const missed = [];
for (const { file, from, to, with: instead, what, line, of } of drawn) {
  if (figures.mutants === COUNT) break;
  const path = join(ROOT, file);
  const text = readFileSync(path, 'utf8');
  const stood = text.split('\n')[line - 1].trim();
  const known = isEqual(file, stood, what);
  if (known) {
    figures.equal++;
    console.log(`equal   ${file}:${line} ${what}: ${known.because}`);
    continue;
  }
  const chosen = testsOf(file, of);
  figures.mutants++;
  open.set(path, { text, mtime: statSync(path).mtime });
  writeFileSync(path, text.slice(0, from) + instead + text.slice(to));
  const started = Date.now();
  let noticed = false;
  try {
    // A few at a time: most faults are noticed by the first.
    for (let at = 0; at < chosen.length && !noticed && Date.now() - started < MOST_MS; at += 6)
      noticed = !(await pass([...chosen.slice(at, at + 6), '--bail=1']));
  } finally {
    restore();
  }
  if (noticed) figures.noticed++;
  else missed.push(`${file}:${line} ${what} in ${of || 'the file'} (${chosen.length} tests): ${stood}`);
  console.log(
    `${noticed ? 'noticed' : 'MISSED '} ${file}:${line} ${what}, ${((Date.now() - started) / 1_000).toFixed(0)} s`,
  );
}
for (const one of missed) console.log(`missed: ${one}`);
console.log(JSON.stringify(figures));
process.exitCode = figures.noticed >= Math.ceil(figures.mutants * 0.9) ? 0 : 1;
