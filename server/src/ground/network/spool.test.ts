import { readdirSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { expect, test } from 'vitest';
import { spooled } from './spool.ts';

const left = () => readdirSync(tmpdir()).filter((name) => /^grivo-[0-9a-f]{8}-/.test(name));

async function* parts(...all: (string | Error)[]): AsyncGenerator<Buffer> {
  for (const one of all) {
    if (one instanceof Error) throw one;
    yield Buffer.from(one);
  }
}

test('what was put away comes back whole, in parts, and leaves nothing', async () => {
  const long = 'crock '.repeat(100_000);
  const back = await spooled(parts(long, 'lid'));
  expect(left()).toEqual([]);
  const read: Uint8Array[] = [];
  for await (const part of back) read.push(part);
  expect(read.length).toBeGreaterThan(1);
  expect(Buffer.concat(read).toString()).toBe(`${long}lid`);
});

test('left in the middle, or broken off, it is gone all the same', async () => {
  const back = await spooled(parts('a'.repeat(600_000)));
  for await (const part of back) {
    expect(part.length).toBe(262_144);
    break;
  }
  expect((await back.next()).done).toBe(true);
  await expect(spooled(parts('a', new Error('the line broke')))).rejects.toThrow('the line broke');
  expect(left()).toEqual([]);
});
