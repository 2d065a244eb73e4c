import { fileAbout, fileBody } from '../files/repository.ts';
import { pictureAs } from '../pictures/read.ts';
import type { Database } from '../store/database.ts';

/** A picture as word processors and PDF take it, with its size in pixels. */
export interface PrintedPicture {
  jpeg: Buffer;
  width: number;
  height: number;
}

/** Wide enough for a page at 200 dots an inch. */
const WIDEST = 1_400;

/** A stored picture as JPEG on white, or null when it is gone or no picture. */
export async function printedPicture(db: Database, digest: string): Promise<PrintedPicture | null> {
  if (!(await fileAbout(db, digest))) return null;
  const read = await pictureAs(await fileBody(db, digest), WIDEST, (open) =>
    open.flatten({ background: '#ffffff' }).jpeg({ quality: 85 }),
  );
  return read.ok ? { jpeg: read.body, width: read.width, height: read.height } : null;
}
