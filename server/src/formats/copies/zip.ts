import { once } from 'node:events';
import type { Writable } from 'node:stream';
import { Zip, ZipDeflate, ZipPassThrough } from 'fflate';

/** Kinds of files that do not get smaller. */
const PACKED = /\.(?:avif|docx|gif|jpe?g|pdf|png|webp)$/;

/** Waits until a stream takes more, or will take nothing any more. */
async function room(out: Writable): Promise<void> {
  const done = new AbortController();
  const either = ['drain', 'close'].map((event) => once(out, event, { signal: done.signal }));
  try {
    await Promise.race(either);
  } finally {
    done.abort();
    await Promise.allSettled(either);
  }
}

/**
 * Writes files into a stream as a zip (APPNOTE 6.3), one after the other and no faster than they are taken, so that no more
 * than one of them is in memory.
 * @throws {Error} when the reader is gone
 */
export async function writeZip(files: AsyncIterable<{ name: string; body: Buffer }>, out: Writable): Promise<void> {
  let failed: Error | null = null;
  let full = false;
  const zip = new Zip((error, chunk) => {
    if (error) failed = error;
    else full = !out.write(chunk);
  });
  for await (const { name, body } of files) {
    const file = PACKED.test(name) ? new ZipPassThrough(name) : new ZipDeflate(name, { level: 6 });
    zip.add(file);
    file.push(body, true);
    if (failed) throw failed;
    if (out.destroyed) throw new Error('the reader of a zip is gone');
    if (full) {
      full = false;
      await room(out);
    }
  }
  zip.end();
  out.end();
}
