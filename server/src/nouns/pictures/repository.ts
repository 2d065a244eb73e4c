import type { Database, Sql } from '../../ground/store/database.ts';

/** Where a picture is from: drawn by a service, of a source, ours, of a picture library, set into a card, or come with a finished text. */
export const PICTURE_KINDS = ['drawn', 'still', 'own', 'library', 'card', 'came'] as const;
export type PictureKind = (typeof PICTURE_KINDS)[number];

export interface NewPicture {
  /** SHA-256 of its stored file. */
  file: string;
  kind: PictureKind;
  /** What is seen. */
  words: string;
  credit: string;
  /** Where it was found; empty where nowhere. */
  origin: string;
  /** What was paid for it, in millionths. */
  cost: number;
  look: string | null;
}

export interface PictureRow extends NewPicture {
  rev: number;
  width: number;
  height: number;
  bytes: number;
  uses: number;
  made: Date | string;
}

const LONGEST_WORDS = 500;

/** Puts a picture into the library; one that is there already stays as it is. @returns whether it was new */
export async function rememberPicture(sql: Sql, one: NewPicture): Promise<boolean> {
  return (
    (await sql.run('INSERT IGNORE INTO picture (file, kind, words, credit, origin, cost, look) VALUES (?)', [
      [
        one.file,
        one.kind,
        one.words.slice(0, LONGEST_WORDS),
        one.credit.slice(0, 300),
        one.origin.slice(0, 1_000),
        one.cost,
        one.look,
      ],
    ])) > 0
  );
}

const COLUMNS = `p.file, p.kind, p.words, p.credit, p.origin, p.cost, p.look, p.rev, p.made_at AS made, f.width, f.height, f.bytes,
  (SELECT COUNT(*) FROM picture_use u WHERE u.file = p.file) AS uses`;

const read = (row: PictureRow): PictureRow => ({
  ...row,
  cost: Number(row.cost),
  bytes: Number(row.bytes),
  uses: Number(row.uses),
  width: row.width ?? 0,
  height: row.height ?? 0,
});

export interface PicturesWanted {
  find: string;
  kind: PictureKind | null;
  unused: boolean;
  from: number;
  most: number;
}

/** Pictures, newest first: those whose words, credit or origin hold a text, of a kind, used nowhere. */
export async function listPictures(
  sql: Sql,
  { find, kind, unused, from, most }: PicturesWanted,
): Promise<PictureRow[]> {
  const like = `%${find.trim().replace(/[\\%_]/g, '\\$&')}%`;
  const rows = await sql.rows<PictureRow>(
    `SELECT ${COLUMNS} FROM picture p JOIN file f ON f.digest = p.file
     WHERE ${kind === null ? '' : 'p.kind = ? AND '}(p.words LIKE ? OR p.credit LIKE ? OR p.origin LIKE ?)${unused ? ' AND NOT EXISTS (SELECT 1 FROM picture_use n WHERE n.file = p.file)' : ''}
     ORDER BY p.made_at DESC, p.file DESC LIMIT ? OFFSET ?`,
    [...(kind === null ? [] : [kind]), like, like, like, most, from],
  );
  return rows.map(read);
}

export interface PictureSums {
  pictures: number;
  unused: number;
  cost: number;
  bytes: number;
}

export async function sumsOfPictures(sql: Sql): Promise<PictureSums> {
  const [row] = await sql.rows<{ pictures: number; unused: number; cost: number | null; bytes: number | null }>(
    `SELECT COUNT(*) AS pictures, SUM(p.cost) AS cost, SUM(f.bytes) AS bytes,
       SUM(NOT EXISTS (SELECT 1 FROM picture_use u WHERE u.file = p.file)) AS unused FROM picture p JOIN file f ON f.digest = p.file`,
  );
  return {
    pictures: Number(row!.pictures),
    unused: Number(row!.unused ?? 0),
    cost: Number(row!.cost ?? 0),
    bytes: Number(row!.bytes ?? 0),
  };
}

export async function getPicture(sql: Sql, file: string): Promise<PictureRow | null> {
  const [row] = await sql.rows<PictureRow>(
    `SELECT ${COLUMNS} FROM picture p JOIN file f ON f.digest = p.file WHERE p.file = ?`,
    [file],
  );
  return row ? read(row) : null;
}

/** Where a picture stands. */
export async function usesOfPicture(
  sql: Sql,
  file: string,
): Promise<{ article: string; title: string; standing: string; isLead: boolean }[]> {
  const rows = await sql.rows<{ article: string; title: string; standing: string; is_lead: number }>(
    'SELECT u.article, a.title, a.standing, u.is_lead FROM picture_use u JOIN article a ON a.id = u.article WHERE u.file = ? ORDER BY u.article DESC LIMIT 50',
    [file],
  );
  return rows.map(({ is_lead: isLead, ...row }) => ({ ...row, isLead: isLead !== 0 }));
}

/** @returns whether it was as it had been read */
export async function changePicture(
  sql: Sql,
  file: string,
  rev: number,
  { words, credit }: { words: string; credit: string },
): Promise<boolean> {
  return (
    (await sql.run('UPDATE picture SET words = ?, credit = ?, rev = rev + 1 WHERE file = ? AND rev = ?', [
      words,
      credit,
      file,
      rev,
    ])) > 0
  );
}

/** Takes a picture out of the library that no article has; its file stays for revisions of before. @returns whether it went */
export async function removePicture(sql: Sql, file: string): Promise<boolean> {
  return (
    (await sql.run(
      'DELETE FROM picture WHERE file = ? AND NOT EXISTS (SELECT 1 FROM picture_use u WHERE u.file = picture.file)',
      [file],
    )) > 0
  );
}

/** Which of these places pictures of articles are from. */
export async function originsUsed(sql: Sql, origins: readonly string[]): Promise<Set<string>> {
  if (origins.length === 0) return new Set();
  const rows = await sql.rows<{ origin: string }>('SELECT origin FROM picture WHERE origin IN (?)', [origins]);
  return new Set(rows.map(({ origin }) => origin));
}

/** Whether these words are said of another picture. */
export async function isSaidOfAnother(sql: Sql, words: string, file: string): Promise<boolean> {
  return (await sql.rows('SELECT 1 FROM picture WHERE words = ? AND file <> ? LIMIT 1', [words, file])).length > 0;
}

/** How all pictures look, for those that are nearly the same. */
export async function looksOfPictures(sql: Sql): Promise<{ file: string; words: string; look: string }[]> {
  return sql.rows('SELECT file, words, look FROM picture WHERE look IS NOT NULL');
}

/** Our own pictures with their words, those first that are used least. */
export async function ownPictures(
  db: Database,
): Promise<{ file: string; words: string; credit: string; width: number; height: number; uses: number }[]> {
  const rows = await db.rows<{
    file: string;
    words: string;
    credit: string;
    width: number;
    height: number;
    uses: number;
  }>(
    `SELECT p.file, p.words, p.credit, f.width, f.height, (SELECT COUNT(*) FROM picture_use u WHERE u.file = p.file) AS uses
     FROM picture p JOIN file f ON f.digest = p.file WHERE p.kind = 'own' AND p.words <> '' ORDER BY p.made_at DESC LIMIT 2000`,
  );
  return rows.map((row) => ({ ...row, uses: Number(row.uses) }));
}
