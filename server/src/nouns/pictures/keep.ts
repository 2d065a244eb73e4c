import { cutTo } from '../../formats/pictures/cut.ts';
import { lookOf } from '../../formats/pictures/look.ts';
import { pictureAs } from '../../formats/pictures/read.ts';
import { fileBody, storeFile } from '../../ground/files/repository.ts';
import type { Database } from '../../ground/store/database.ts';
import { getPicture, type NewPicture, rememberPicture } from './repository.ts';

/** As wide as any column of a blog needs it, twice over for dense screens. */
const WIDEST = 1_600;
/** Bytes of a picture that is read. */
export const MOST_PICTURE_BYTES = 30_000_000;

export type Kept =
  | { ok: true; file: string; mime: string; width: number; height: number; isNew: boolean }
  | { ok: false; problem: string };

/** Brings a picture to a size for the web, without what it says of where and by whom it was taken, and keeps it in the library. */
export async function keepPicture(
  db: Database,
  bytes: Buffer,
  about: Omit<NewPicture, 'file' | 'look'>,
): Promise<Kept> {
  if (bytes.length > MOST_PICTURE_BYTES)
    return { ok: false, problem: `it has more than ${MOST_PICTURE_BYTES / 1_000_000} MB` };
  const picture = await pictureAs(bytes, WIDEST, (open) => open.rotate().webp({ quality: 80, effort: 0 }));
  if (!picture.ok) return picture;
  return keepMade(db, picture, about);
}

/** Keeps a picture in the library that is as it is to be: a WebP of ours where nothing else is said. */
export async function keepMade(
  db: Database,
  { body, mime = 'image/webp', width, height }: { body: Buffer; mime?: string; width: number; height: number },
  about: Omit<NewPicture, 'file' | 'look'>,
): Promise<Kept & { ok: true }> {
  const file = await storeFile(db, body, { mime, width, height });
  const isNew = await rememberPicture(db, { ...about, file, look: await lookOf(body) });
  return { ok: true, file, mime, width, height, isNew };
}

/** The same of a file that was uploaded. */
export async function keepUploaded(
  db: Database,
  upload: string,
  about: Omit<NewPicture, 'file' | 'look'>,
): Promise<Kept> {
  return keepPicture(db, await fileBody(db, upload), about);
}

/** A picture of the library cut to other sides, kept beside it with the same words. @returns null when there is no such picture */
export async function keepCut(
  db: Database,
  file: string,
  cut: { wide: number; high: number; keep: Parameters<typeof cutTo>[3] },
): Promise<Kept | null> {
  const picture = await getPicture(db, file);
  if (!picture) return null;
  const { kind, words, credit, origin } = picture;
  const made = await cutTo(await fileBody(db, file), cut.wide, cut.high, cut.keep);
  return keepMade(db, made, { kind, words, credit, origin, cost: 0 });
}
