import { execFile } from 'node:child_process';
import { stat } from 'node:fs/promises';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { FolderTrouble } from './files.ts';

const run = promisify(execFile);

const TIME_LIMIT_MS = 20_000;

/** Nothing a working tree brings along is run: no hooks, no watchers, no signing, no questions. */
const SAFE = [
  ['core.hooksPath', '/dev/null'],
  ['core.fsmonitor', 'false'],
  ['commit.gpgSign', 'false'],
  ['protocol.ext.allow', 'never'],
  ['user.name', 'Grivo'],
  ['user.email', 'grivo@localhost'],
].flatMap(([name, value]) => ['-c', `${name}=${value}`]);

async function git(folder: string, ...words: string[]): Promise<string> {
  const { PATH = '', HOME = '' } = process.env;
  try {
    const { stdout } = await run('git', [...SAFE, '-C', folder, ...words], {
      timeout: TIME_LIMIT_MS,
      env: { PATH, HOME, GIT_TERMINAL_PROMPT: '0', GIT_CONFIG_NOSYSTEM: '1', LC_ALL: 'C' },
    });
    return stdout.trim();
  } catch (error) {
    const said = String((error as { stderr?: unknown }).stderr ?? (error as Error).message);
    throw new FolderTrouble(`git says: ${(said.split('\n')[0] ?? '').slice(0, 200)}`, null);
  }
}

/** Commits files as they are now, also those that are gone, and pushes where there is somewhere to push to. */
export async function commit(folder: string, files: readonly string[], says: string): Promise<void> {
  const isTree = await stat(join(folder, '.git')).catch(() => null);
  const top = isTree ? folder : await git(folder, 'rev-parse', '--show-toplevel').catch(() => null);
  if (!top) throw new FolderTrouble('it is no working tree of git', null);
  await git(folder, 'add', '--all', '--', ...files);
  const changed = await git(folder, 'diff', '--cached', '--name-only', '--', ...files);
  if (changed !== '') await git(folder, 'commit', '--quiet', '-m', says, '--', ...files);
  if ((await git(folder, 'remote')) !== '') await git(folder, 'push', '--quiet');
}
