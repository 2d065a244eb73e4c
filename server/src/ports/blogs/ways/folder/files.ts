import { mkdir, open, readFile, realpath, rename, rm, stat, writeFile } from 'node:fs/promises';
import { hostname } from 'node:os';
import { dirname, isAbsolute, join, relative, resolve, sep } from 'node:path';
import type { BlogMistake } from '@grivo/core';

/** Why a folder could not be written or read, as a usual mistake where it is one. */
export class FolderTrouble extends Error {
  constructor(
    readonly problem: string,
    readonly mistake: BlogMistake | null,
  ) {
    super(problem);
  }
}

/** A lock nobody took away in this time was left behind. */
const LOCK_STALE_MS = 120_000;
const LOCK_AGAIN_MS = 25;
/** Where Grivo keeps what it knows of a folder, in the folder. */
export const OWN = '.grivo';

/** Whether a path is a folder or below it. */
export function isWithin(path: string, folder: string): boolean {
  const way = relative(folder, path);
  return way === '' || (!way.startsWith(`..${sep}`) && way !== '..' && !isAbsolute(way));
}

/**
 * A path typed by somebody, as one below a folder the installation allows.
 * @param roots folders posts may be written below
 * @returns null when it is below none of them
 */
export function folderAmong(typed: string, roots: readonly string[]): string | null {
  for (const root of roots) {
    const path = resolve(root, typed);
    if (isWithin(path, root)) return path;
  }
  return null;
}

/** The files of one blog, none of them outside of its folder, wherever links in it lead. */
export class Files {
  /** @param roots folders the installation allows; what is below none of them is not touched */
  constructor(
    readonly folder: string,
    private readonly roots: readonly string[],
  ) {}

  /** @throws {FolderTrouble} when the folder is not there, or below none that is allowed */
  async check(): Promise<void> {
    const real = await realpath(this.folder).catch((error: unknown) => fail(error));
    const roots = await Promise.all(this.roots.map((root) => realpath(root).catch(() => null)));
    if (!roots.some((root) => root !== null && isWithin(real, root)))
      throw new FolderTrouble('the folder is below none that whoever runs Grivo allows (GRIVO_FOLDERS)', 'no folder');
    if (!(await stat(real)).isDirectory()) throw new FolderTrouble('it is a file and no folder', 'no folder');
  }

  /** Where a file of the folder is. @throws {FolderTrouble} when it would lie outside, also by a link */
  async pathOf(file: string, make = false): Promise<string> {
    const path = resolve(this.folder, file);
    if (!isWithin(path, this.folder)) throw new FolderTrouble(`${file} would lie outside of the folder`, null);
    const parent = dirname(path);
    if (make) await mkdir(parent, { recursive: true }).catch((error: unknown) => fail(error));
    const real = await realpath(parent).catch((error: unknown) => (isMissing(error) ? null : fail(error)));
    if (real !== null && !isWithin(real, await realpath(this.folder)))
      throw new FolderTrouble(`${file} would lie outside of the folder`, null);
    return path;
  }

  /** Writes a file whole or not at all, whatever ends in the middle. */
  async write(file: string, body: string | Buffer): Promise<void> {
    const path = await this.pathOf(file, true);
    const beside = join(dirname(path), `.${process.pid}-${Math.random().toString(36).slice(2, 10)}.part`);
    try {
      const handle = await open(beside, 'wx', 0o644);
      try {
        await handle.writeFile(body);
        await handle.sync();
      } finally {
        await handle.close();
      }
      await rename(beside, path);
    } catch (error) {
      await rm(beside, { force: true });
      fail(error);
    }
  }

  async read(file: string): Promise<Buffer | null> {
    const path = await this.pathOf(file);
    return readFile(path).catch((error: unknown) => (isMissing(error) ? null : fail(error)));
  }

  async remove(file: string): Promise<void> {
    await rm(await this.pathOf(file), { force: true }).catch((error: unknown) => fail(error));
  }

  /** Does something while nobody else, in any process, does something with this folder. */
  async alone<T>(act: () => Promise<T>): Promise<T> {
    const lock = await this.pathOf(join(OWN, 'lock'), true);
    const token = `${hostname()} ${process.pid}`;
    for (;;) {
      try {
        await writeFile(lock, token, { flag: 'wx' });
        break;
      } catch (error) {
        if ((error as NodeJS.ErrnoException).code !== 'EEXIST') fail(error);
      }
      if (await isLeft(lock)) await rm(lock, { force: true });
      else await new Promise((then) => setTimeout(then, LOCK_AGAIN_MS));
    }
    try {
      return await act();
    } finally {
      await rm(lock, { force: true });
    }
  }
}

/** Whether a lock was left behind: by a process of this machine that is gone, or too long ago by any. */
async function isLeft(lock: string): Promise<boolean> {
  try {
    const [text, { mtimeMs }] = [await readFile(lock, 'utf8'), await stat(lock)];
    const [host = '', pid = ''] = text.split(' ');
    return Date.now() - mtimeMs > LOCK_STALE_MS || (host === hostname() && !isAlive(Number(pid)));
  } catch (error) {
    // It was given back just now.
    if (isMissing(error)) return false;
    throw error;
  }
}

function isAlive(pid: number): boolean {
  // What is being written just now names nobody yet.
  if (!Number.isInteger(pid) || pid <= 0) return true;
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return (error as NodeJS.ErrnoException).code !== 'ESRCH';
  }
}

const isMissing = (error: unknown): boolean => (error as NodeJS.ErrnoException).code === 'ENOENT';

/** @throws {FolderTrouble} what the system says, in words */
function fail(error: unknown): never {
  if (error instanceof FolderTrouble || !(error instanceof Error)) throw error;
  switch ((error as NodeJS.ErrnoException).code) {
    case 'ENOENT':
    case 'ENOTDIR':
      throw new FolderTrouble('the folder is not there', 'no folder');
    case 'EACCES':
    case 'EPERM':
    case 'EROFS':
      throw new FolderTrouble('the folder must not be written to', 'folder read-only');
    case 'ENOSPC':
    case 'EDQUOT':
      throw new FolderTrouble('there is no room left where the folder is', null);
    default:
      throw error;
  }
}
