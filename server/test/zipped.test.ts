import { randomBytes } from 'node:crypto';
import { EMPTY_ARTICLE } from '@grivo/core';
import { expect, test } from 'vitest';
import { storeFile } from '../src/ground/files/repository.ts';
import { addRevision, ensureArticle } from '../src/nouns/articles/repository.ts';
import { atTheDesk, type Desk } from './ground/desk.ts';

let desk: Desk;
atTheDesk((one) => {
  desk = one;
});

const MANY = 500;
/** Of a picture; no two are alike, and none gets smaller in a zip. */
const BYTES = 400_000;
/** Half of what all pictures together take. */
const MOST_HELD = (MANY * BYTES) / 2;

/** More than the directory at the end of the file takes. */
const DIRECTORY = 200_000;

/** Names of the files of a zip by its directory (APPNOTE 4.3.12 and 4.3.16). */
function namesIn(tail: Buffer): string[] {
  const end = tail.lastIndexOf(Buffer.from('PK\u0005\u0006'));
  const entries = tail.readUInt16LE(end + 10);
  let at = end - tail.readUInt32LE(end + 12);
  return Array.from({ length: entries }, () => {
    const [name, extra, comment] = [28, 30, 32].map((offset) => tail.readUInt16LE(at + offset));
    const from = at + 46;
    at = from + name! + extra! + comment!;
    return tail.toString('utf8', from, from + name!);
  });
}

async function articleWithPicture(n: number): Promise<string> {
  const { ground } = desk.w.product;
  const file = await storeFile(ground.db, randomBytes(BYTES), { mime: 'image/png', width: 8, height: 8 });
  const id = await ensureArticle(ground, { id: 'z'.repeat(20), trial: false }, `l${n}`, 'en');
  const { writes } = await addRevision(ground, id, null, 'y'.repeat(20), {
    ...EMPTY_ARTICLE,
    title: `Lacing a boot ${n}`,
    body: [{ type: 'figure', id: 'b1', file, width: 8, height: 8, alternative: `Boot ${n}`, lead: true }],
  });
  await ground.db.transaction(async (sql) => {
    for (const { text, parameters } of writes) await sql.run(text, parameters);
  });
  return id;
}

test('five hundred articles are saved in one file without ever being held all at once', async () => {
  const ids: string[] = [];
  for (let n = 0; n < MANY; n += 10)
    ids.push(...(await Promise.all(Array.from({ length: 10 }, (_, i) => articleWithPicture(n + i)))));
  const answer = await fetch(`${desk.http.address}/api/articles/zip?as=Markdown&articles=${ids.join(',')}`, {
    headers: { cookie: desk.cookie },
  });
  expect(answer.status).toBe(200);
  const held = () => process.memoryUsage().arrayBuffers;
  const before = held();
  let [bytes, most, tail] = [0, 0, Buffer.alloc(0)];
  for await (const part of answer.body as unknown as AsyncIterable<Uint8Array>) {
    bytes += part.length;
    most = Math.max(most, held() - before);
    tail = Buffer.concat([tail, part]).subarray(-DIRECTORY);
  }
  expect(bytes).toBeGreaterThan(MANY * BYTES);
  const names = namesIn(tail);
  expect(names.filter((name) => name.endsWith('.md'))).toHaveLength(MANY);
  expect(new Set(names.filter((name) => name.startsWith('pictures/'))).size).toBe(MANY);
  expect(most).toBeLessThan(MOST_HELD);
});
