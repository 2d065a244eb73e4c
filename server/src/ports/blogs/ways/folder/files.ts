import { mkdir, readFile, realpath, rename, rm, stat, writeFile } from 'node:fs/promises';
import { dirname, isAbsolute, join, relative, resolve, sep } from 'node:path';
import type { BlogMistake } from '@grivo/core';
import type { FolderLocks } from './lock.ts';

/** Why a folder could not be written or read, as a usual mistake where it is one. */
export class FolderTrouble extends Error {
  constructor(
    readonly problem: string,
    readonly mistake: BlogMistake | null,
  ) {
    super(problem);
  }
}

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
  /** Folders of this one that were looked at: where they are is asked once. */
  private readonly known = new Set<string>();

  /**
   * @param roots folders the installation allows; what is below none of them is not touched
   * @param locks what keeps others from the folder meanwhile
   */
  constructor(
    readonly folder: string,
    private readonly roots: readonly string[],
    private readonly locks: FolderLocks,
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
    if (this.known.has(parent)) return path;
    if (make) await mkdir(parent, { recursive: true }).catch((error: unknown) => fail(error));
    const real = await realpath(parent).catch((error: unknown) => (isMissing(error) ? null : fail(error)));
    if (real !== null && !isWithin(real, await realpath(this.folder)))
      throw new FolderTrouble(`${file} would lie outside of the folder`, null);
    if (real !== null) this.known.add(parent);
    return path;
  }

  /** Writes a file whole or not at all, whatever ends in the middle. */
  async write(file: string, body: string | Buffer): Promise<void> {
    await this.writeAll([[file, body]]);
  }

  /** Writes files, each whole or not at all: all of them beside their places at once, then into their places in this order. */
  async writeAll(files: readonly (readonly [file: string, body: string | Buffer])[]): Promise<void> {
    const paths: string[] = [];
    for (const [file] of files) paths.push(await this.pathOf(file, true));
    const beside = paths.map((path) =>
      join(dirname(path), `.${process.pid}-${Math.random().toString(36).slice(2, 10)}.part`),
    );
    try {
      await Promise.all(
        files.map(([, body], i) => writeFile(beside[i]!, body, { flag: 'wx', mode: 0o644, flush: true })),
      );
      for (const [i, path] of paths.entries()) await rename(beside[i]!, path);
    } catch (error) {
      for (const part of beside) await rm(part, { force: true });
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
    return this.locks.alone(lock, act).catch(fail);
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
