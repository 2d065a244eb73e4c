import { pictureAs } from '../pictures/read.ts';

/** A picture as word processors and PDF take it, with its size in pixels. */
export interface PrintedPicture {
  jpeg: Buffer;
  width: number;
  height: number;
}

/** Wide enough for a page at 200 dots an inch. */
const WIDEST = 1_400;

/** A picture as JPEG on white, or null when it is none. */
export async function printedPicture(bytes: Buffer): Promise<PrintedPicture | null> {
  const read = await pictureAs(bytes, WIDEST, (open) => open.flatten({ background: '#ffffff' }).jpeg({ quality: 85 }));
  return read.ok ? { jpeg: read.body, width: read.width, height: read.height } : null;
}
