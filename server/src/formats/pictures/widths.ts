import sharp, { type Sharp } from 'sharp';
import { MOST_PIXELS, pictureRefused } from './read.ts';

/** Pixels that copies are wide: a telephone, a dense telephone, a text column twice over, and that on dense screens. */
export const WIDTHS = [400, 800, 1_200, 1_600] as const;
export type PictureForm = 'webp' | 'avif';

export interface Copy {
  form: PictureForm;
  width: number;
  height: number;
  body: Buffer;
}

/** What each form is encoded with: WebP at once, AVIF when there is time. */
const ENCODE = {
  webp: (picture: Sharp) => picture.webp({ quality: 80, effort: 0 }),
  avif: (picture: Sharp) => picture.avif({ quality: 55, effort: 2 }),
};

/**
 * A picture in several widths, none wider than it is. It is unpacked once: each width is made of the next wider one that is
 * there already. What it says of where and by whom it was taken is left out.
 * @returns the widest first; null of what cannot be read
 */
export async function inWidths(
  bytes: Buffer,
  widths: readonly number[],
  form: PictureForm = 'webp',
): Promise<Copy[] | null> {
  if (pictureRefused(bytes) !== null) return null;
  try {
    const open = sharp(bytes, { limitInputPixels: MOST_PIXELS, failOn: 'error', pages: 1 }).rotate();
    const { width: w = 0, height: h = 0, orientation = 1 } = await sharp(bytes).metadata();
    const wide = orientation >= 5 ? h : w;
    const wanted = [...new Set(widths.filter((width) => width <= wide))].sort((a, b) => b - a);
    const copies: Promise<Copy>[] = [];
    let from = open;
    for (const width of wanted) {
      const { data, info } = await from.resize({ width }).raw().toBuffer({ resolveWithObject: true });
      const raw = { width: info.width, height: info.height, channels: info.channels };
      from = sharp(data, { raw });
      copies.push(
        ENCODE[form](from.clone())
          .toBuffer()
          .then((body) => ({ form, width: info.width, height: info.height, body })),
      );
    }
    return await Promise.all(copies);
  } catch (error) {
    // The library throws plain errors for whatever a picture has wrong.
    if (!(error instanceof Error)) throw error;
    return null;
  }
}
