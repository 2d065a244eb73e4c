import { createHash, randomBytes } from 'node:crypto';
import type { Database } from '../store/database.ts';

/** Written at once; more keeps others waiting while the statement is made. */
const CHUNK = 262_144;

export type Uploaded = { ok: true; digest: string; bytes: number } | { ok: false; problem: 'too large' | 'empty' };

/**
 * Keeps a stream as a file by its content, a quarter of a megabyte at a time, so that no large file is ever whole in memory. What is
 * longer than the limit, or ends too early, leaves nothing behind.
 */
export async function storeUpload(
  db: Database,
  stream: AsyncIterable<Buffer>,
  { mime, mostBytes }: { mime: string; mostBytes: number },
): Promise<Uploaded> {
  const sum = createHash('sha256');
  // Chunks stand under a name nobody knows until the content has given them theirs.
  const under = randomBytes(32).toString('hex');
  let parts: Buffer[] = [];
  let size = 0;
  let bytes = 0;
  let n = 0;
  const put = async () => {
    await db.run('INSERT INTO file_chunk (digest, n, body) VALUES (?, ?, ?)', [under, n++, Buffer.concat(parts)]);
    parts = [];
    size = 0;
  };
  try {
    for await (const part of stream) {
      bytes += part.length;
      if (bytes > mostBytes) return await forget('too large');
      sum.update(part);
      parts.push(part);
      size += part.length;
      if (size >= CHUNK) await put();
    }
    if (bytes === 0) return await forget('empty');
    if (size > 0) await put();
    const digest = sum.digest('hex');
    const made = await db.transaction(async (sql) => {
      const fresh = await sql.run('INSERT IGNORE INTO file (digest, mime, bytes) VALUES (?, ?, ?)', [
        digest,
        mime,
        bytes,
      ]);
      if (fresh > 0) await sql.run('UPDATE file_chunk SET digest = ? WHERE digest = ?', [digest, under]);
      return fresh > 0;
    });
    if (!made) await db.run('DELETE FROM file_chunk WHERE digest = ?', [under]);
    return { ok: true, digest, bytes };
  } catch (error) {
    await db.run('DELETE FROM file_chunk WHERE digest = ?', [under]).catch(() => undefined);
    throw error;
  }

  async function forget(problem: 'too large' | 'empty'): Promise<Uploaded> {
    await db.run('DELETE FROM file_chunk WHERE digest = ?', [under]);
    return { ok: false, problem };
  }
}
