import { spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, rmSync, utimesSync, writeFileSync } from 'node:fs';
import { hostname, tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, expect, it } from 'vitest';
import { FolderLocks } from './lock.ts';

let folder: string;
let path: string;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'lock-'));
  path = join(folder, 'lock');
});
afterEach(() => rmSync(folder, { recursive: true, force: true }));
const pause = (ms: number) => new Promise((then) => setTimeout(then, ms));

it('one act at a time, of one process and of several; in the end nothing is locked', async () => {
  const [ours, theirs] = [new FolderLocks(), new FolderLocks()];
  let inside = 0;
  const order: string[] = [];
  const act = (name: string) => async () => {
    expect(++inside).toBe(1);
    await pause(2);
    order.push(name);
    inside--;
  };
  await Promise.all(
    Array.from({ length: 30 }, (_, n) => [
      ours.alone(path, act(`ours ${n}`)),
      theirs.alone(path, act(`theirs ${n}`)),
    ]).flat(),
  );
  expect(order.filter((name) => name.startsWith('ours'))).toEqual(Array.from({ length: 30 }, (_, n) => `ours ${n}`));
  expect(order).toHaveLength(60);
  await Promise.all([ours.settled(), theirs.settled()]);
  expect(existsSync(path)).toBe(false);
});

it('whoever does one thing after the other lets others have their turn', async () => {
  const [busy, patient] = [new FolderLocks(), new FolderLocks()];
  let over = false;
  const burst = (async () => {
    while (!over) await Promise.all([1, 2, 3].map(() => busy.alone(path, () => pause(5))));
  })();
  await pause(30);
  await patient.alone(path, async () => {
    over = true;
  });
  await burst;
  expect(over).toBe(true);
});

it('an act that fails says so to whoever asked for it, and keeps no other from being done', async () => {
  const locks = new FolderLocks();
  const [failed, done] = await Promise.allSettled([
    locks.alone(path, async () => {
      throw new Error('no room');
    }),
    locks.alone(path, async () => 'done'),
  ]);
  expect([failed.status, done]).toEqual(['rejected', { status: 'fulfilled', value: 'done' }]);
  await locks.settled();
  expect(existsSync(path)).toBe(false);
});

it.each([
  ['by a process of this machine that is gone', () => `${hostname()} ${spawnSync('true').pid}`, 0],
  ['long ago, by whomever', () => 'elsewhere 1', 150_000],
])('a lock left behind %s is taken', async (_, token, ago) => {
  writeFileSync(path, token());
  const then = new Date(Date.now() - ago);
  utimesSync(path, then, then);
  const locks = new FolderLocks();
  expect(await locks.alone(path, async () => 'mine')).toBe('mine');
  await locks.settled();
});

it('where no lock can be made, it is said', async () => {
  const locks = new FolderLocks();
  await expect(locks.alone(join(folder, 'none', 'lock'), async () => 1)).rejects.toThrow(/ENOENT/);
  await locks.settled();
});
