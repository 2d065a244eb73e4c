// Builds the screens when they are older than what they are made of. Built-ins only, besides the builder itself.
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT } from './install.mjs';

const STAMP = join(ROOT, 'web', 'dist', '.made-of');

function digestOfSources() {
  const sum = createHash('sha256');
  for (const folder of ['web/src', 'web/public', 'core/src', 'contract/src'])
    for (const name of readdirSync(join(ROOT, folder), { recursive: true, encoding: 'utf8' }).sort())
      if (/\.(tsx?|css|svg)$/.test(name) && !/\.test\.tsx?$/.test(name))
        sum.update(name).update(readFileSync(join(ROOT, folder, name)));
  for (const name of ['web/index.html', 'web/vite.config.ts', 'package-lock.json'])
    sum.update(readFileSync(join(ROOT, name)));
  return sum.digest('hex');
}

/** @returns whether anything had to be built */
export function buildScreens() {
  const digest = digestOfSources();
  if (existsSync(STAMP) && readFileSync(STAMP, 'utf8') === digest) return false;
  console.log('Building the screens …');
  const { status } = spawnSync(
    process.execPath,
    [join(ROOT, 'node_modules', 'vite', 'bin', 'vite.js'), 'build', 'web', '--logLevel', 'error'],
    {
      cwd: ROOT,
      stdio: ['ignore', 'inherit', 'inherit'],
    },
  );
  if (status !== 0) throw new Error('The screens could not be built.');
  writeFileSync(STAMP, digest);
  return true;
}

if (process.argv[1] === import.meta.filename) buildScreens();
