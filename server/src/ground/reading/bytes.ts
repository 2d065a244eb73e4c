import { open, readFile } from 'node:fs/promises';

/** The first bytes of a file, or all of them. */
export async function bytesOf(path: string, first?: number): Promise<Buffer> {
  if (first === undefined) return await readFile(path);
  const file = await open(path);
  try {
    const { bytesRead, buffer } = await file.read(Buffer.alloc(first), 0, first, 0);
    return buffer.subarray(0, bytesRead);
  } finally {
    await file.close();
  }
}
