import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { Response } from 'express';
import { knownBytes } from '../formats/media/known.ts';

/**
 * Hands bytes on as fast as they are taken, so that a slow reader keeps no more of them in memory than a part. Pictures and
 * sound are shown by what their bytes are; everything else is a file to be saved.
 * @param about its name, and its length where that is known
 */
export async function sendBytes(
  response: Response,
  parts: AsyncIterable<Buffer>,
  about: { name: string; bytes: number | null },
): Promise<void> {
  const all = parts[Symbol.asyncIterator]();
  const first = await all.next();
  const head = first.done ? Buffer.alloc(0) : first.value;
  const known = knownBytes(head);
  response.type(known.shown ? known.mime : 'application/octet-stream');
  if (!known.shown) response.setHeader('content-disposition', `attachment; filename="${about.name}"`);
  if (about.bytes !== null) response.setHeader('content-length', about.bytes);
  const whole = async function* () {
    yield head;
    for (;;) {
      const next = await all.next();
      if (next.done) return;
      yield next.value;
    }
  };
  try {
    await pipeline(Readable.from(whole(), { objectMode: false, highWaterMark: 1 }), response);
  } catch (error) {
    // Who stopped reading is no fault of ours.
    if (!response.destroyed) throw error;
  } finally {
    await all.return?.();
  }
}
