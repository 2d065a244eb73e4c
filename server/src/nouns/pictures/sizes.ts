import { inWidths, type PictureForm, WIDTHS } from '../../formats/pictures/widths.ts';
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

/** Stand in the place of a width: copies are due, or none can be made. */
const DUE = -1;
const NONE = 0;

/** Copies there are of pictures, the narrowest first. */
export async function copiesOf(sql: Sql, files: readonly string[]): Promise<SizedCopy[]> {
  if (files.length === 0) return [];
  return sql.rows(
    `SELECT file, form, width, copy FROM picture_size WHERE file IN (?) AND width > ${NONE} ORDER BY file, form, width`,
    [[...files]],
  );
}

/** Notes that pictures are to have copies in the form that takes its time, where they have none. */
export async function copiesDue(sql: Sql, files: readonly string[]): Promise<void> {
  for (const file of files)
    await sql.run(
      `INSERT IGNORE INTO picture_size (file, form, width, copy) SELECT ?, 'avif', ${DUE}, ? FROM DUAL
       WHERE NOT EXISTS (SELECT 1 FROM picture_size s WHERE s.file = ? AND s.form = 'avif')`,
      [file, file, file],
    );
}

/**
 * Makes the copies of a picture in a form, where there are none yet. A picture that cannot be read, as one of a file that is
 * gone, has none.
 */
export async function makeCopies(db: Database, file: string, form: PictureForm): Promise<void> {
  const known = await db.rows(`SELECT 1 FROM picture_size WHERE file = ? AND form = ? AND width >= ${NONE} LIMIT 1`, [
    file,
    form,
  ]);
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
 * Makes copies of one more picture that waits for them; posts that were sent without them are due once more.
 * @returns whether there was one
 */
export async function makeNextCopies(db: Database): Promise<boolean> {
  const [next] = await db.rows<{ file: string }>(
    // Where it stands is noted first, so that its posts are found.
    `SELECT s.file FROM picture_size s WHERE s.form = 'avif' AND s.width = ${DUE}
     AND EXISTS (SELECT 1 FROM picture_use u WHERE u.file = s.file) LIMIT 1`,
  );
  if (!next) return false;
  const { file } = next;
  await makeCopies(db, file, 'avif');
  await db.run(`DELETE FROM picture_size WHERE file = ? AND form = 'avif' AND width = ${DUE}`, [file]);
  // One that cannot be copied is not tried for ever.
  await db.run(
    `INSERT INTO picture_size (file, form, width, copy) SELECT ?, 'avif', ${NONE}, ? FROM DUAL
     WHERE NOT EXISTS (SELECT 1 FROM picture_size s WHERE s.file = ? AND s.form = 'avif')`,
    [file, file, file],
  );
  await db.run(
    `UPDATE publication p JOIN picture_use u ON u.article = p.article JOIN blog b ON b.id = p.blog SET p.anew_at = COALESCE(p.anew_at, UTC_TIMESTAMP(3))
     WHERE u.file = ? AND p.state IN ('draft', 'live') AND JSON_VALUE(b.settings, '$.pictures') = 'several'`,
    [file],
  );
  return true;
}
