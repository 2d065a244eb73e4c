import { once } from 'node:events';
import type { Writable } from 'node:stream';
import { Zip, ZipDeflate, ZipPassThrough } from 'fflate';

/** Kinds of files that do not get smaller. */
const PACKED = /\.(?:avif|docx|gif|jpe?g|pdf|png|webp)$/;

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
      await Promise.race([once(out, 'drain'), once(out, 'close')]);
    }
  }
  zip.end();
  out.end();
}
