import type { Hangs } from '@grivo/contract';
import type { Sql } from '../../ground/store/database.ts';

/**
 * What goes when an article is removed: it goes with its brief, so with its other languages, and off the blogs. What it
 * cost stays in the books, and what it was made from counts as taken.
 */
export async function hangsOnArticle(sql: Sql, brief: string, article: string): Promise<Omit<Hangs, 'name'>> {
  const [row] = await sql.rows<{ others: number; live: number; drafts: number; standing: string }>(
    `SELECT (SELECT COUNT(*) FROM article WHERE brief = b.id AND id <> ?) AS others,
       (SELECT COUNT(*) FROM publication p JOIN article a ON a.id = p.article WHERE a.brief = b.id AND p.state = 'live') AS live,
       (SELECT COUNT(*) FROM publication p JOIN article a ON a.id = p.article WHERE a.brief = b.id AND p.state IN ('creating', 'draft')) AS drafts,
       b.standing FROM brief b WHERE b.id = ?`,
    [article, brief],
  );
  const some = (n: unknown, one: string, several: string) =>
    Number(n) > 0 ? [`${Number(n)} ${Number(n) === 1 ? one : several}`] : [];
  return {
    with: [
      ...some(row?.live, 'post readers see on a blog', 'posts readers see on blogs'),
      ...some(row?.drafts, 'draft on a blog', 'drafts on blogs'),
      ...some(row?.others, 'article in another language', 'articles in other languages'),
    ],
    unless:
      row?.standing === 'out' || row?.standing === 'set aside'
        ? []
        : ['Its brief has not ended: set the brief aside first.'],
  };
}
