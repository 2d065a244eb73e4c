// Builds what is older than what it is made of: the screens, and the programs of the server and the stand-ins.
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { dirname, join, relative } from 'node:path';
import { ROOT } from './install.mjs';

function digestOf(folders, files) {
  const sum = createHash('sha256');
  for (const folder of folders)
    for (const name of readdirSync(join(ROOT, folder), { recursive: true, encoding: 'utf8' }).sort())
      if (/\.(tsx?|css|svg)$/.test(name) && !/\.test\.tsx?$/.test(name))
        sum.update(name).update(readFileSync(join(ROOT, folder, name)));
  for (const name of [...files, 'package-lock.json']) sum.update(readFileSync(join(ROOT, name)));
  return sum.digest('hex');
}

/** What is being made, by its stamp: who asks meanwhile waits for it, and finds nothing half written. */
const making = new Map();

/** Does the work when the stamp does not tell that it was done with the same sources; one after the other. */
function unlessMade(stamp, digest, work) {
  const made = (making.get(stamp) ?? Promise.resolve()).then(() => makeUnlessMade(stamp, digest, work));
  making.set(
    stamp,
    made.catch(() => undefined),
  );
  return made;
}

async function makeUnlessMade(stamp, digest, work) {
  const path = join(ROOT, stamp);
  mkdirSync(dirname(path), { recursive: true });
  if (existsSync(path) && readFileSync(path, 'utf8') === digest) return;
  await work();
  writeFileSync(path, digest);
}

export async function buildScreens() {
  const digest = digestOf(
    ['web/src', 'web/public', 'core/src', 'contract/src'],
    ['web/index.html', 'web/vite.config.ts'],
  );
  await unlessMade('web/dist/.made-of', digest, () => {
    console.log('Building the screens …');
    const { status } = spawnSync(
      process.execPath,
      [join(ROOT, 'node_modules', 'vite', 'bin', 'vite.js'), 'build', 'web', '--logLevel', 'error'],
      { cwd: ROOT, stdio: ['ignore', 'inherit', 'inherit'] },
    );
    if (status !== 0) throw new Error('The screens could not be built.');
  });
}

const READING = 'server/dist/readers/reader.mjs';
/** Where a built program is. */
export const PROGRAMS = { server: 'server/dist/main.mjs', standIns: 'standins/dist/standins.mjs' };

/** A bundle stands elsewhere than its sources: what they read beside themselves is found from where they were. */
const besideSources = (outfile) => ({
  name: 'beside sources',
  setup(build) {
    build.onLoad({ filter: /\.ts$/ }, ({ path }) => {
      const text = readFileSync(path, 'utf8');
      if (!text.includes('import.meta.dirname')) return undefined;
      const way = JSON.stringify(`/${relative(join(ROOT, dirname(outfile)), dirname(path))}`);
      return { loader: 'ts', contents: text.replaceAll('import.meta.dirname', `(import.meta.dirname + ${way})`) };
    });
  },
});

/**
 * One file of a program and everything of ours it reads, packages left where they are.
 * @param inParts what is read only when it is first wanted stands in files of its own beside it
 */
export async function bundle(entry, outfile, inParts = false) {
  const { build } = await import('esbuild');
  const alias = Object.fromEntries(
    ['core', 'contract', 'standins'].map((room) => [`@grivo/${room}`, join(ROOT, room, 'src', 'index.ts')]),
  );
  await build({
    absWorkingDir: ROOT,
    entryPoints: [entry],
    ...(inParts ? { outdir: dirname(outfile), splitting: true, outExtension: { '.js': '.mjs' } } : { outfile }),
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    sourcemap: true,
    logLevel: 'error',
    alias,
    packages: 'external',
    plugins: [besideSources(outfile)],
  });
}

/** The program that reads what comes from outside: built also for tests, since it is begun without a loader. */
export async function buildReading() {
  const digest = digestOf(['core/src', 'contract/src', 'server/src'], ['scripts/build.mjs']);
  await unlessMade('server/dist/.reading-made-of', digest, async () => {
    rmSync(join(ROOT, dirname(READING)), { recursive: true, force: true });
    await bundle('server/src/api/readers/reader.ts', READING, true);
  });
}

/** The programs, built: they start in half the time that reading every file through a loader takes. */
export async function buildPrograms() {
  const digest = digestOf(['core/src', 'contract/src', 'server/src', 'standins/src'], ['scripts/build.mjs']);
  await unlessMade('server/dist/.made-of', digest, async () => {
    await bundle('server/src/api/main.ts', PROGRAMS.server);
    await bundle('standins/src/main.ts', PROGRAMS.standIns);
  });
  await buildReading();
}

if (process.argv[1] === import.meta.filename) {
  await buildScreens();
  await buildPrograms();
}
