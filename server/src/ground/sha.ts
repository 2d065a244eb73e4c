import { createHash } from 'node:crypto';

/** The SHA-256 of a text, in hexadecimal. */
export function sha(text: string): string {
  return createHash('sha256').update(text).digest('hex');
}
