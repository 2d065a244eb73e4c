import type { Sql } from '../../ground/store/database.ts';
import type { PublicationRow } from './publications.ts';

/**
 * Who a post is by where people take turns: whoever it is by already, else the one whose last post on the blog is the
 * longest ago, the first named where several have none. It is kept with the publication, so that asking again says the same.
 * @returns null where nobody is named
 */
export async function authorInTurn(
  sql: Sql,
  { id, blog }: Pick<PublicationRow, 'id' | 'blog'>,
  authors: readonly string[],
): Promise<string | null> {
  if (authors.length === 0) return null;
  const [own] = await sql.rows<{ author: string | null }>('SELECT author FROM publication WHERE id = ?', [id]);
  if (own?.author && authors.includes(own.author)) return own.author;
  const rows = await sql.rows<{ author: string; last: string }>(
    'SELECT author, MAX(id) AS last FROM publication WHERE blog = ? AND author IN (?) GROUP BY author',
    [blog, authors],
  );
  const last = new Map(rows.map(({ author, last }) => [author, last]));
  const [next] = authors.toSorted((a, b) => {
    const [x, y] = [last.get(a) ?? '', last.get(b) ?? ''];
    return x < y ? -1 : x > y ? 1 : 0;
  });
  await sql.run('UPDATE publication SET author = ? WHERE id = ?', [next, id]);
  return next!;
}
