import { aboutSound } from './aboutSound.ts';

/** What a file is by its bytes; `shown` when a browser may draw or play it in its place. */
export interface KnownBytes {
  mime: string;
  shown: boolean;
}

const begins = (head: Uint8Array, signs: string, at = 0): boolean =>
  Buffer.from(head.subarray(at, at + signs.length)).toString('latin1') === signs;

const shown = (mime: string): KnownBytes => ({ mime, shown: true });
const saved = (mime: string): KnownBytes => ({ mime, shown: false });

/**
 * What a file is, by its first bytes alone: what its sender calls it is not asked. Only pictures made of dots and sound are
 * shown; everything else, pages and drawings with scripts in them among it, is a file to be saved.
 */
export function knownBytes(head: Uint8Array): KnownBytes {
  if (begins(head, '\u0089PNG\r\n\u001a\n')) return shown('image/png');
  if (begins(head, '\u00ff\u00d8\u00ff')) return shown('image/jpeg');
  if (begins(head, 'GIF87a') || begins(head, 'GIF89a')) return shown('image/gif');
  if (begins(head, 'RIFF') && begins(head, 'WEBP', 8)) return shown('image/webp');
  if (begins(head, 'ftyp', 4) && /^avi[fs]$/.test(Buffer.from(head.subarray(8, 12)).toString('latin1')))
    return shown('image/avif');
  const sound = isUtf16(head) ? null : aboutSound(head.subarray(0, 65_536), head.length);
  if (sound) return shown(sound.mime);
  if (begins(head, '%PDF-')) return saved('application/pdf');
  if (begins(head, 'PK\u0003\u0004')) return saved('application/zip');
  return saved('application/octet-stream');
}

/** A text of two bytes a letter begins as a frame of MP3 does. */
function isUtf16(head: Uint8Array): boolean {
  return head[0] === 0xff && head[1] === 0xfe;
}
