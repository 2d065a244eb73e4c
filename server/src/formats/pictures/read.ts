import sharp, { type Sharp } from 'sharp';
import { knownBytes } from '../media/known.ts';

/** Pictures that are read. Drawings described by text (SVG) are programs of a kind: drawing one can take for ever. */
const READ: ReadonlySet<string> = new Set(['image/png', 'image/jpeg', 'image/webp', 'image/avif']);
/** As many as a sheet of 30 by 20 inches at 300 dots. */
export const MOST_PIXELS = 60_000_000;
/** What encoders for the web can hold in one direction (WebP: 16,383). */
const LONGEST_SIDE = 12_000;
const SECONDS = 15;

/** Shuts every other way of reading pictures in this process, so that none is tried whatever bytes pretend to be. */
export function shutOtherPictures(): void {
  sharp.block({ operation: ['VipsForeignLoad'] });
  sharp.unblock({
    operation: [
      'VipsForeignLoadPngBuffer',
      'VipsForeignLoadJpegBuffer',
      'VipsForeignLoadWebpBuffer',
      'VipsForeignLoadHeifBuffer',
    ],
  });
}

export type ReadPicture = { ok: true; body: Buffer; width: number; height: number } | { ok: false; problem: string };

/** Why bytes are no picture that is read; null when they are one, as far as their beginning tells. */
export function pictureRefused(bytes: Uint8Array): string | null {
  const { mime } = knownBytes(bytes);
  if (READ.has(mime)) return null;
  return mime.startsWith('image/')
    ? `it is a picture of a kind that is not read (${mime.slice(6)}); PNG, JPEG, WebP and AVIF are`
    : 'it is no picture that can be read; PNG, JPEG, WebP and AVIF are';
}

/**
 * Brings a picture to a width and form. Its kind is told by its bytes; size, sides and time are limited, so that none
 * keeps the machine busy.
 * @param make how the opened picture is encoded
 */
export async function pictureAs(bytes: Buffer, widest: number, make: (picture: Sharp) => Sharp): Promise<ReadPicture> {
  const refused = pictureRefused(bytes);
  if (refused !== null) return { ok: false, problem: refused };
  try {
    const open = sharp(bytes, { limitInputPixels: MOST_PIXELS, failOn: 'error', pages: 1 }).timeout({
      seconds: SECONDS,
    });
    const size = { width: widest, height: LONGEST_SIDE, fit: 'inside', withoutEnlargement: true } as const;
    const { data, info } = await make(open.resize(size)).toBuffer({ resolveWithObject: true });
    return { ok: true, body: data, width: info.width, height: info.height };
  } catch (error) {
    // The library throws plain errors for whatever a picture has wrong.
    if (!(error instanceof Error)) throw error;
    return { ok: false, problem: `the picture cannot be read: ${error.message.split('\n')[0]!.slice(0, 200)}` };
  }
}
