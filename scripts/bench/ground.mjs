// What every measurement needs: a MariaDB of its own that flushes at every commit, and a median.
import { randomBytes } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { assemble } from '../../server/src/api/product.ts';
import { Database } from '../../server/src/ground/store/database.ts';
import { startMariadb } from '../mariadb.mjs';

export const median = (values) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)];
export const pause = (ms) => new Promise((resolve) => setTimeout(resolve, ms));

/** So many phrases, none near another (near repeats are not taken). */
export function phrases(many) {
  const letters = (n) =>
    [...n.toString(20).padStart(3, '0')].map((digit) => 'bcdfghjklmnpqrstvwxz'[Number.parseInt(digit, 20)]);
  return Array.from({ length: many }, (_, i) => {
    const [a, b, c] = letters(i);
    return `${a}a${b}o${c}im ${c}e${a}u${b}or ${b}i${c}o${a}at`;
  });
}

/** @returns a server on disk, a new migrated product on it for each round, and its end */
export async function ground() {
  const folder = mkdtempSync(join(tmpdir(), 'grivo-bench-'));
  const mariadb = await startMariadb(folder, { durable: true });
  let n = 0;
  return {
    url: mariadb.url,
    /** A product on an empty database of its own. */
    async product(options = {}) {
      const url = new URL(mariadb.url);
      const server = await Database.open(url.href, 1);
      url.pathname = `/bench_${++n}`;
      await server.run(`CREATE DATABASE bench_${n} CHARACTER SET utf8mb4 COLLATE utf8mb4_uca1400_ai_ci`);
      await server.close();
      const product = await assemble({ databaseUrl: url.href, secretKey: randomBytes(32), ...options });
      return { product, url: url.href };
    },
    async end() {
      await mariadb.stop();
      rmSync(folder, { recursive: true, force: true });
    },
  };
}

/** A text with one word more in each sentence, which nobody has read before. */
export const never = (text, n) =>
  text.replace(/[.!?](?=\s|$)/g, (end) => ` q${[...String(n)].map((digit) => 'abcdefghij'[digit]).join('')}${end}`);
