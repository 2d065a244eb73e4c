import { readFile, rm, stat, writeFile } from 'node:fs/promises';
import { hostname } from 'node:os';

/** A lock nobody took away in this time was left behind. */
const STALE_MS = 120_000;
const AGAIN_MS = 25;
/** A lock is kept for so long after an act: of many in a row, each would wait for a file to be made and taken away again. */
const LINGERS_MS = 20;
/** Then it is given back all the same, so that other processes have their turn. */
const MOST_KEPT_MS = 500;

interface Lock {
  /** When it was taken, in milliseconds; null while it is not ours. */
  since: number | null;
  /** Ends with the last act that was asked for. */
  last: Promise<unknown>;
  acts: number;
  lingers: NodeJS.Timeout | null;
}

/** Locks of folders: files that are there as long as a process does something with the folder. */
export class FolderLocks {
  private readonly locks = new Map<string, Lock>();

  /** Does something while nobody else, in any process, does something under this lock. @param path the file that is the lock */
  alone<T>(path: string, act: () => Promise<T>): Promise<T> {
    let lock = this.locks.get(path);
    if (!lock) {
      lock = { since: null, last: Promise.resolve(), acts: 0, lingers: null };
      this.locks.set(path, lock);
    }
    return this.inTurn(path, lock, act);
  }

  /** Waits until every lock is given back. */
  async settled(): Promise<void> {
    for (;;) {
      const [lock] = this.locks.values();
      if (!lock) return;
      await lock.last;
      if (lock.lingers) await pause(LINGERS_MS);
    }
  }

  private inTurn<T>(path: string, lock: Lock, act: () => Promise<T>): Promise<T> {
    if (lock.lingers) clearTimeout(lock.lingers);
    lock.lingers = null;
    lock.acts++;
    const done = lock.last.then(async () => {
      try {
        if (lock.since === null) {
          await take(path);
          lock.since = performance.now();
        }
        return await act();
      } finally {
        lock.acts--;
        await this.giveBack(path, lock);
      }
    });
    lock.last = done.catch(() => undefined);
    return done;
  }

  /** At once where it was kept for long, else when nothing more is asked for in a while. */
  private async giveBack(path: string, lock: Lock): Promise<void> {
    const over = lock.since !== null && performance.now() - lock.since > MOST_KEPT_MS;
    if (over) {
      await rm(path, { force: true });
      lock.since = null;
      // Whoever waits for it looks again within this time.
      if (lock.acts > 0) await pause(AGAIN_MS);
    }
    if (lock.acts > 0) return;
    if (lock.since === null) this.locks.delete(path);
    else
      lock.lingers = setTimeout(() => {
        lock.lingers = null;
        lock.last = lock.last.then(async () => {
          // Something was asked for meanwhile: it has the lock, and gives it back.
          if (lock.acts > 0 || lock.since === null) return;
          await rm(path, { force: true }).catch(() => undefined);
          lock.since = null;
          if (lock.acts === 0) this.locks.delete(path);
        });
      }, LINGERS_MS);
  }
}

const pause = (ms: number): Promise<void> => new Promise((then) => setTimeout(then, ms));

async function take(path: string): Promise<void> {
  const token = `${hostname()} ${process.pid}`;
  for (;;) {
    try {
      await writeFile(path, token, { flag: 'wx' });
      return;
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code !== 'EEXIST') throw error;
    }
    if (await isLeft(path)) await rm(path, { force: true });
    else await pause(AGAIN_MS);
  }
}

/** Whether a lock was left behind: by a process of this machine that is gone, or too long ago by any. */
async function isLeft(path: string): Promise<boolean> {
  try {
    const [text, { mtimeMs }] = [await readFile(path, 'utf8'), await stat(path)];
    const [host = '', pid = ''] = text.split(' ');
    return Date.now() - mtimeMs > STALE_MS || (host === hostname() && !isAlive(Number(pid)));
  } catch (error) {
    // It was given back just now.
    if ((error as NodeJS.ErrnoException).code === 'ENOENT') return false;
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
