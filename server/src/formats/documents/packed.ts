import { constants, inflateRawSync } from 'node:zlib';

const DIRECTORY_END = Buffer.from([0x50, 0x4b, 5, 6]);
const MOST_MEMBERS = 10_000;

/**
 * What is wrong with a ZIP file (APPNOTE 4.3), or null. Whether it stays within bounds when it is unpacked is found out by
 * unpacking: its directory may lie.
 * @param most bytes all its members may unpack to
 */
export function packedProblem(given: Uint8Array, most: number): string | null {
  const bytes = Buffer.from(given.buffer, given.byteOffset, given.byteLength);
  const tail = bytes.lastIndexOf(DIRECTORY_END);
  if (tail < 0 || tail + 22 > bytes.length) return 'its end is missing';
  const members = bytes.readUInt16LE(tail + 10);
  if (members > MOST_MEMBERS) return `it holds ${members} files`;
  let at = bytes.readUInt32LE(tail + 16);
  let left = most;
  for (let n = 0; n < members; n++) {
    if (at + 46 > bytes.length || bytes.readUInt32LE(at) !== 0x02014b50) return 'its directory is broken';
    const method = bytes.readUInt16LE(at + 10);
    const size = bytes.readUInt32LE(at + 20);
    const from = bytes.readUInt32LE(at + 42);
    if (from + 30 > bytes.length) return 'its directory is broken';
    const data = from + 30 + bytes.readUInt16LE(from + 26) + bytes.readUInt16LE(from + 28);
    if (method !== 0 && method !== 8) return 'it is packed in a way that is not read';
    const packed = bytes.subarray(data, data + size);
    try {
      left -=
        method === 0
          ? packed.length
          : inflateRawSync(packed, { maxOutputLength: Math.max(1, left), finishFlush: constants.Z_SYNC_FLUSH }).length;
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code === 'ERR_BUFFER_TOO_LARGE') left = -1;
      else return 'what is packed in it is broken';
    }
    if (left < 0) return `unpacked it would be larger than ${Math.round(most / 1_000_000)} MB`;
    at += 46 + bytes.readUInt16LE(at + 28) + bytes.readUInt16LE(at + 30) + bytes.readUInt16LE(at + 32);
  }
  return null;
}
