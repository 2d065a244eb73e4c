import { isAscii, isUtf8 } from 'node:buffer';

/** Encodings a text may be in. */
export type Encoding = 'utf-8' | 'utf-16le' | 'utf-16be' | 'windows-1252';

/**
 * The encoding of a text from its first bytes: by its mark (BOM), else UTF-16 where every other byte is nothing, else
 * UTF-8 where they are well formed, else the Western encoding that old spreadsheets write.
 */
export function guessEncoding(sample: Uint8Array): Encoding {
  if (sample[0] === 0xff && sample[1] === 0xfe) return 'utf-16le';
  if (sample[0] === 0xfe && sample[1] === 0xff) return 'utf-16be';
  if (sample[0] === 0xef && sample[1] === 0xbb && sample[2] === 0xbf) return 'utf-8';
  let even = 0;
  let odd = 0;
  for (let i = 0; i < sample.length; i++) if (sample[i] === 0) i % 2 === 0 ? even++ : odd++;
  if (odd > sample.length / 5) return 'utf-16le';
  if (even > sample.length / 5) return 'utf-16be';
  return isUtf8(wholeLetters(sample)) ? 'utf-8' : 'windows-1252';
}

/** Without the first bytes of a letter of UTF-8 the sample ends inside of (RFC 3629, section 3). */
function wholeLetters(sample: Uint8Array): Uint8Array {
  for (let back = 1; back <= Math.min(3, sample.length); back++) {
    const byte = sample[sample.length - back]!;
    if (byte < 0x80) break;
    // The first byte of a letter says how many there are.
    if (byte >= 0xc0) return (byte >= 0xf0 ? 4 : byte >= 0xe0 ? 3 : 2) > back ? sample.subarray(0, -back) : sample;
  }
  return sample;
}

/** Text of a stream of bytes, line ends evened to one. */
export async function* decoded(bytes: AsyncIterable<Uint8Array>, encoding: Encoding): AsyncGenerator<string> {
  const decoder = new TextDecoder(encoding);
  // Plain letters are the same bytes in both and are copied as they are, until there is something else.
  let plain = encoding === 'utf-8' || encoding === 'windows-1252';
  let carried = '';
  for await (const part of bytes) {
    plain &&= isAscii(part);
    let text = carried + (plain ? lettersOf(part) : decoder.decode(part, { stream: true }));
    carried = text.endsWith('\r') ? '\r' : '';
    if (carried !== '') text = text.slice(0, -1);
    if (text !== '') yield evened(text);
  }
  const last = carried + decoder.decode();
  if (last !== '') yield evened(last);
}

function lettersOf({ buffer, byteOffset, byteLength }: Uint8Array): string {
  return Buffer.from(buffer as ArrayBuffer, byteOffset, byteLength).toString('latin1');
}

function evened(text: string): string {
  return text.includes('\r') ? text.replace(/\r\n?/g, '\n') : text;
}
