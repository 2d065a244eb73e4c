import { inflateSync } from 'node:zlib';

const HEADER = 44;
const ENTRY = 20;

/**
 * A font in the wrapping of the web (WOFF 1.0, W3C 2012) as the plain font (OpenType) in it. Libraries unwrap it too, but
 * without the platform's inflating, which took two thirds of making a PDF.
 */
export function plainFont(woff: Buffer): Buffer {
  const many = woff.readUInt16BE(12);
  const tables = Array.from({ length: many }, (_, n) => {
    const at = HEADER + n * ENTRY;
    const [offset, packed, size] = [woff.readUInt32BE(at + 4), woff.readUInt32BE(at + 8), woff.readUInt32BE(at + 12)];
    const body = woff.subarray(offset, offset + packed);
    return {
      entry: woff.subarray(at, at + 4),
      sum: woff.readUInt32BE(at + 16),
      body: packed < size ? inflateSync(body) : body,
    };
  });
  const head = Buffer.alloc(12 + many * 16);
  woff.copy(head, 0, 4, 8);
  head.writeUInt16BE(many, 4);
  // What helps to search the tables, as the format asks for it.
  const steps = Math.floor(Math.log2(many));
  head.writeUInt16BE(16 * 2 ** steps, 6);
  head.writeUInt16BE(steps, 8);
  head.writeUInt16BE(16 * many - 16 * 2 ** steps, 10);
  const parts: Buffer[] = [head];
  let at = head.length;
  for (const [n, { entry, sum, body }] of tables.entries()) {
    const place = 12 + n * 16;
    entry.copy(head, place);
    head.writeUInt32BE(sum, place + 4);
    head.writeUInt32BE(at, place + 8);
    head.writeUInt32BE(body.length, place + 12);
    const padding = (4 - (body.length % 4)) % 4;
    parts.push(body, Buffer.alloc(padding));
    at += body.length + padding;
  }
  return Buffer.concat(parts);
}
