// Installs what is missing: Debian's packages when root, npm's packages always. Built-ins only.
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

export const ROOT = join(import.meta.dirname, '..');

function run(command, args, options = {}) {
  const { status, error } = spawnSync(command, args, { stdio: 'inherit', cwd: ROOT, ...options });
  if (status !== 0) throw new Error(`${command} ${args.join(' ')} failed${error ? `: ${error.message}` : ''}`);
}

const DEBIAN = { 'mariadb-server': '/usr/sbin/mariadbd', chromium: '/usr/bin/chromium' };

/** @param {{ browser?: boolean }} wanted the browser is needed by tests and pictures only */
export function installMissing({ browser = false } = {}) {
  const missing = Object.entries(DEBIAN)
    .filter(([name, path]) => (browser || name !== 'chromium') && !existsSync(path))
    .map(([name]) => name);
  if (missing.length > 0) {
    const command = `apt-get install -y --no-install-recommends ${missing.join(' ')}`;
    if (process.getuid?.() !== 0)
      throw new Error(
        `These Debian packages are missing: ${missing.join(', ')}. Install them with:\n  sudo ${command}`,
      );
    console.log(`Installing ${missing.join(', ')} …`);
    const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
    run('apt-get', ['update', '-qq'], { env });
    run('apt-get', ['install', '-y', '-qq', '--no-install-recommends', ...missing], {
      env,
      stdio: ['ignore', 'ignore', 'inherit'],
    });
  }
  const lock = createHash('sha256')
    .update(readFileSync(join(ROOT, 'package-lock.json')))
    .digest('hex');
  const stamp = join(ROOT, 'node_modules', '.grivo-lock');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === lock) return;
  console.log('Installing npm packages …');
  run('npm', ['ci', '--no-audit', '--no-fund', '--ignore-scripts', '--loglevel=error']);
  writeFileSync(stamp, lock);
}
