import { FORMS, inWidths, type PictureForm, WIDTHS } from '../../formats/pictures/widths.ts';
import { fileAbout, fileBody, storeFile } from '../../ground/files/repository.ts';
import type { Database, Sql } from '../../ground/store/database.ts';

/** A stored copy of a picture in another width or form. */
export interface SizedCopy {
  /** The picture it is a copy of. */
  file: string;
  form: PictureForm;
  width: number;
  /** Its own stored file; the picture's where none was needed. */
  copy: string;
}

/** Copies there are of pictures, the narrowest first. */
export async function copiesOf(sql: Sql, files: readonly string[]): Promise<SizedCopy[]> {
  if (files.length === 0) return [];
  return sql.rows('SELECT file, form, width, copy FROM picture_size WHERE file IN (?) ORDER BY file, form, width', [
    [...files],
  ]);
}

/**
 * Makes the copies of a picture in a form, where there are none yet. A picture that cannot be read, as one of a file that is
 * gone, has none.
 */
export async function makeCopies(db: Database, file: string, form: PictureForm): Promise<void> {
  const known = await db.rows('SELECT 1 FROM picture_size WHERE file = ? AND form = ? LIMIT 1', [file, form]);
  if (known.length > 0) return;
  const about = await fileAbout(db, file);
  if (!about) return;
  const own = form === 'webp' && about.mime === 'image/webp' ? about.width : null;
  const wide = about.width ?? 0;
  const copies = await inWidths(
    await fileBody(db, file),
    // As wide as it is, it is there already, in one form.
    own === null ? [...WIDTHS, wide] : WIDTHS.filter((width) => width < own),
    form,
  );
  if (copies === null) return;
  const kept = await Promise.all(
    copies.map(async ({ body, width, height }) => ({
      width,
      copy: await storeFile(db, body, { mime: `image/${form}`, width, height }),
    })),
  );
  if (own !== null) kept.push({ width: own, copy: file });
  for (const { width, copy } of kept)
    await db.run('INSERT IGNORE INTO picture_size (file, form, width, copy) VALUES (?)', [[file, form, width, copy]]);
}

/**
 * Makes copies of one more picture of an article that is out, or is to go out, on a blog that takes several widths; posts
 * that were sent without them are due once more.
 * @returns whether there was one
 */
export async function makeNextCopies(db: Database): Promise<boolean> {
  const [next] = await db.rows<{ file: string }>(
    `SELECT u.file FROM blog b JOIN publication p ON p.blog = b.id JOIN picture_use u ON u.article = p.article
     LEFT JOIN picture_size s ON s.file = u.file AND s.form = 'avif'
     WHERE JSON_VALUE(b.settings, '$.pictures') = 'several' AND p.state IN ('planned', 'creating', 'draft', 'live') AND s.file IS NULL LIMIT 1`,
  );
  if (!next) return false;
  for (const form of FORMS) await makeCopies(db, next.file, form);
  // One that cannot be copied is its own copy, so that it is not tried for ever.
  await db.run(
    "INSERT IGNORE INTO picture_size (file, form, width, copy) SELECT ?, 'avif', 0, ? FROM DUAL WHERE NOT EXISTS (SELECT 1 FROM picture_size WHERE file = ? AND form = 'avif')",
    [next.file, next.file, next.file],
  );
  await db.run(
    `UPDATE publication p JOIN picture_use u ON u.article = p.article JOIN blog b ON b.id = p.blog SET p.anew_at = COALESCE(p.anew_at, UTC_TIMESTAMP(3))
     WHERE u.file = ? AND p.state IN ('draft', 'live') AND JSON_VALUE(b.settings, '$.pictures') = 'several'`,
    [next.file],
  );
  return true;
}
