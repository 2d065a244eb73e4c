import { readdir, readFile, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { type Files, OWN } from './files.ts';
import type { Kept } from './pages.ts';

/** Where it stands what Grivo wrote, a file a post. */
export const POSTS = join(OWN, 'posts');

const AT_ONCE = 64;

interface Read {
  mtimeMs: number;
  kept: Kept;
}

/** What is kept of all posts of folders; a file that was read is read again only when it was written since. */
export class KeptPosts {
  private readonly read = new Map<string, Map<string, Read>>();

  async all(files: Files): Promise<Kept[]> {
    const folder = await files.pathOf(POSTS);
    const names = (await readdir(folder).catch(() => [] as string[])).filter(
      (name) => name.endsWith('.json') && !name.endsWith('.post.json'),
    );
    const before = this.read.get(folder) ?? new Map<string, Read>();
    const now = new Map<string, Read>();
    for (let at = 0; at < names.length; at += AT_ONCE)
      for (const [name, one] of await Promise.all(
        names
          .slice(at, at + AT_ONCE)
          .map(async (name) => [name, await newest(join(folder, name), before.get(name))] as const),
      ))
        if (one) now.set(name, one);
    this.read.set(folder, now);
    return [...now.values()].map(({ kept }) => kept);
  }
}

/** Null when it was taken away meanwhile. */
async function newest(path: string, before: Read | undefined): Promise<Read | null> {
  try {
    const { mtimeMs } = await stat(path);
    if (before?.mtimeMs === mtimeMs) return before;
    return { mtimeMs, kept: JSON.parse(await readFile(path, 'utf8')) as Kept };
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === 'ENOENT') return null;
    throw error;
  }
}
