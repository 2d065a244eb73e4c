import { createHash } from 'node:crypto';
import type { Database, Sql } from '../store/database.ts';

const CHUNK = 1_048_576;

export interface StoredFile {
  digest: string;
  mime: string;
  bytes: number;
  width: number | null;
  height: number | null;
}

/** Keeps a file by its content; the same content is kept once. */
export async function storeFile(
  db: Database,
  body: Buffer,
  about: { mime: string; width: number | null; height: number | null },
): Promise<string> {
  const digest = createHash('sha256').update(body).digest('hex');
  await db.transaction(
    async (sql) => {
      const made = await sql.run(
        'INSERT IGNORE INTO file (digest, mime, bytes, width, height) VALUES (?, ?, ?, ?, ?)',
        [digest, about.mime, body.length, about.width, about.height],
      );
      if (made === 0) return true;
      for (let at = 0, n = 0; at < body.length; at += CHUNK, n++)
        await sql.run('INSERT INTO file_chunk (digest, n, body) VALUES (?, ?, ?)', [
          digest,
          n,
          body.subarray(at, at + CHUNK),
        ]);
      return true;
    },
    async (sql) => ((await sql.rows('SELECT 1 FROM file WHERE digest = ?', [digest])).length > 0 ? true : undefined),
  );
  return digest;
}

/**
 * Keeps a file of one part, as a drawing of ours, within whatever is being done: its bytes first, so that a file that is
 * known is always whole.
 */
export async function storeSmall(
  sql: Sql,
  body: Buffer,
  about: { mime: string; width: number; height: number },
): Promise<string> {
  if (body.length > CHUNK) throw new Error(`a file of ${body.length} bytes has more than one part`);
  const digest = createHash('sha256').update(body).digest('hex');
  await sql.run('INSERT IGNORE INTO file_chunk (digest, n, body) VALUES (?, 0, ?)', [digest, body]);
  await sql.run('INSERT IGNORE INTO file (digest, mime, bytes, width, height) VALUES (?, ?, ?, ?, ?)', [
    digest,
    about.mime,
    body.length,
    about.width,
    about.height,
  ]);
  return digest;
}

export async function fileAbout(db: Database, digest: string): Promise<StoredFile | null> {
  const [row] = await db.rows<StoredFile>('SELECT digest, mime, bytes, width, height FROM file WHERE digest = ?', [
    digest,
  ]);
  return row ?? null;
}

/** A file whole, or null when it is gone. */
export const fileOrNone = async (db: Database, digest: string): Promise<Buffer | null> =>
  (await fileAbout(db, digest)) ? fileBody(db, digest) : null;

/** The parts of a file in order, one statement a part, so that large files are never whole in memory. */
export async function* fileChunks(db: Database, digest: string): AsyncGenerator<Buffer> {
  for (let n = 0; ; n++) {
    const [row] = await db.rows<{ body: Buffer }>('SELECT body FROM file_chunk WHERE digest = ? AND n = ?', [
      digest,
      n,
    ]);
    if (!row) return;
    yield row.body;
  }
}

/** The first chunks of a file, a megabyte at least where it has so much: enough to tell what it is. */
export async function fileHead(db: Database, digest: string): Promise<Buffer> {
  const rows = await db.rows<{ body: Buffer }>('SELECT body FROM file_chunk WHERE digest = ? AND n < 4 ORDER BY n', [
    digest,
  ]);
  return Buffer.concat(rows.map(({ body }) => body));
}

export async function fileBody(db: Database, digest: string): Promise<Buffer> {
  const parts: Buffer[] = [];
  for await (const part of fileChunks(db, digest)) parts.push(part);
  return Buffer.concat(parts);
}

/** Which of some files are kept, by the SHA-256 of their content. */
export async function filesThere(db: Sql, digests: readonly string[]): Promise<Set<string>> {
  if (digests.length === 0) return new Set();
  const rows = await db.rows<{ digest: string }>('SELECT digest FROM file WHERE digest IN (?)', [digests]);
  return new Set(rows.map(({ digest }) => digest));
}
