import sharp from 'sharp';
import { MOST_PIXELS } from './read.ts';

const WIDE = 9;
const HIGH = 8;

/**
 * How a picture looks, in 64 bits: which of two neighbours is the brighter, over nine by eight grey dots (difference hash). Two
 * that differ in few bits look nearly the same, whatever their size and form.
 * @returns sixteen hexadecimal digits, or null of what cannot be read
 */
export async function lookOf(bytes: Buffer): Promise<string | null> {
  try {
    const grey = await sharp(bytes, { limitInputPixels: MOST_PIXELS, pages: 1 })
      .flatten({ background: '#fff' })
      .greyscale()
      .resize(WIDE, HIGH, { fit: 'fill' })
      .raw()
      .toBuffer();
    let bits = 0n;
    for (let y = 0; y < HIGH; y++)
      for (let x = 0; x < WIDE - 1; x++)
        bits = (bits << 1n) | (grey[y * WIDE + x]! > grey[y * WIDE + x + 1]! ? 1n : 0n);
    return bits.toString(16).padStart(16, '0');
  } catch (error) {
    if (!(error instanceof Error)) throw error;
    return null;
  }
}

/** In how many of 64 bits two looks are the same, as a share. */
export function alikeness(a: string, b: string): number {
  let differ = 0;
  for (let bits = BigInt(`0x${a}`) ^ BigInt(`0x${b}`); bits > 0n; bits &= bits - 1n) differ++;
  return 1 - differ / 64;
}
