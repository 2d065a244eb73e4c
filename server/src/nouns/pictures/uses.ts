import type { Block, BlockOf } from '@grivo/core';
import type { Database } from '../../ground/store/database.ts';
import { readRevision } from '../articles/repository.ts';
import { rememberPicture } from './repository.ts';

/** Articles whose pictures are noted in one go. */
const AT_ONCE = 60;

/**
 * Notes which pictures articles have that were changed since; a picture nobody put into the library, as one that came with a
 * finished text, is put there with what its article says of it.
 * @returns how many articles there were
 */
export async function notePictures(db: Database): Promise<number> {
  const due = await db.rows<{ id: string }>(`SELECT id FROM article WHERE pictures_due = 1 LIMIT ${AT_ONCE}`);
  for (const { id } of due) {
    await db.transaction(async (sql) => {
      // Two processes may look at once: the second waits here, and finds nothing left to do.
      const [article] = await sql.rows<{ current: string | null }>(
        'SELECT current FROM article WHERE id = ? AND pictures_due = 1 FOR UPDATE',
        [id],
      );
      if (!article) return;
      const { current } = article;
      const document = current === null ? null : await readRevision(sql, current);
      const figures = (document?.body ?? []).flatMap(picturesOf);
      await sql.run('DELETE FROM picture_use WHERE article = ?', [id]);
      const once = [...new Map(figures.map((figure) => [figure.file, figure])).values()];
      for (const figure of once) {
        await rememberPicture(sql, {
          file: figure.file,
          kind: 'came',
          words: figure.alternative,
          credit: (figure.credit ?? []).map(({ text }) => text).join(''),
          origin: '',
          cost: 0,
          look: null,
        });
        await sql.run('INSERT INTO picture_use (file, article, is_lead) VALUES (?, ?, ?)', [
          figure.file,
          id,
          Number(figure.lead),
        ]);
      }
      await sql.run('UPDATE article SET pictured = ? WHERE id = ?', [current, id]);
    });
  }
  return due.length;
}

/** The pictures of a block, with what is said of each. */
function picturesOf(block: Block): Pick<BlockOf<'figure'>, 'file' | 'alternative' | 'credit' | 'lead'>[] {
  if (block.type === 'figure') return [block];
  return block.type === 'video' && block.picture
    ? [{ file: block.picture.file, alternative: block.title, lead: false }]
    : [];
}
