/** What a file of sound says of itself. */
export interface AboutSound {
  form: 'WAV' | 'MP3' | 'MP4' | 'Ogg' | 'FLAC' | 'WebM';
  mime: string;
  /** Null where only reading it whole would tell. */
  seconds: number | null;
}

/**
 * The form of a recording by its first bytes, and how long it is where they say so (WAV: RIFF, Microsoft and IBM 1991).
 * @param head its first bytes, a few kilobytes
 * @param bytes its whole size
 * @returns null when it is not a recording of a kind that is read
 */
export function aboutSound(head: Uint8Array, bytes: number): AboutSound | null {
  const text = Buffer.from(head.subarray(0, 64)).toString('latin1');
  if (text.startsWith('RIFF') && text.slice(8, 12) === 'WAVE')
    return { form: 'WAV', mime: 'audio/wav', seconds: wavSeconds(head, bytes) };
  if (text.startsWith('ID3') || (head[0] === 0xff && (head[1]! & 0xe0) === 0xe0))
    return { form: 'MP3', mime: 'audio/mpeg', seconds: null };
  if (text.slice(4, 8) === 'ftyp') return { form: 'MP4', mime: 'audio/mp4', seconds: null };
  if (text.startsWith('OggS')) return { form: 'Ogg', mime: 'audio/ogg', seconds: null };
  if (text.startsWith('fLaC')) return { form: 'FLAC', mime: 'audio/flac', seconds: null };
  if (head[0] === 0x1a && head[1] === 0x45 && head[2] === 0xdf && head[3] === 0xa3)
    return { form: 'WebM', mime: 'audio/webm', seconds: null };
  return null;
}

function wavSeconds(head: Uint8Array, bytes: number): number | null {
  const view = Buffer.from(head.buffer, head.byteOffset, head.byteLength);
  let at = 12;
  let rate = 0;
  while (at + 8 <= view.length) {
    const name = view.toString('latin1', at, at + 4);
    const size = view.readUInt32LE(at + 4);
    if (name === 'fmt ' && at + 20 <= view.length) rate = view.readUInt32LE(at + 16);
    if (name === 'data') return rate > 0 ? Math.min(size, Math.max(0, bytes - at - 8)) / rate : null;
    at += 8 + size + (size % 2);
  }
  return null;
}

/** The slowest recordings are packed to about this, in bytes a second: what one of unknown length can last at most. */
const LEAST_BYTES_A_SECOND = 1_500;

/** The longest a recording can be, in seconds. */
export function mostSeconds(about: AboutSound, bytes: number): number {
  return about.seconds ?? Math.ceil(bytes / LEAST_BYTES_A_SECOND);
}
