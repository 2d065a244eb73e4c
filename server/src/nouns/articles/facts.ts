import type { Sql } from '../../ground/store/database.ts';
import type { Write } from '../../ground/store/write.ts';

/** Where an article stands follows from these facts by a column of its own; nothing else changes it. */

/** It was ended on purpose. */
export function asideWrite(article: string): Write {
  return { text: 'UPDATE article SET aside = 1, rev = rev + 1 WHERE id = ?', parameters: [article] };
}

/** Its brief was ended on purpose; what is on a blog already stays there. */
export async function setAsideWith(sql: Sql, brief: string): Promise<void> {
  await sql.run('DELETE l FROM placement l JOIN article a ON a.id = l.article WHERE a.brief = ? AND a.out_as IS NULL', [
    brief,
  ]);
  await sql.run('UPDATE article SET aside = 1, rev = rev + 1 WHERE brief = ? AND out_as IS NULL', [brief]);
}

export async function bringBackWith(sql: Sql, brief: string): Promise<void> {
  await sql.run('UPDATE article SET aside = 0, slot = 0, rev = rev + 1 WHERE brief = ? AND aside = 1', [brief]);
}

/** It is finished and waits for a slot of a blog. */
export async function waitsForSlot(sql: Sql, article: string, blog: string): Promise<void> {
  await sql.run('UPDATE article SET slot = 1, blog = ?, rev = rev + 1 WHERE id = ? AND slot = 0', [blog, article]);
}

/**
 * What it is on the blogs, after something was done on one of them: the furthest it went. A draft on the way to going live
 * is none yet.
 */
export function outWrite(article: string, blog: string): Write {
  return {
    text: `UPDATE article a SET blog = ?, rev = rev + 1, out_as = (SELECT p.state FROM publication p WHERE p.article = a.id
      AND (p.state IN ('live', 'withdrawn') OR p.state = 'draft' AND p.as_ IN ('draft', 'review')) ORDER BY FIELD(p.state, 'live', 'draft', 'withdrawn') LIMIT 1) WHERE a.id = ?`,
    parameters: [blog, article],
  };
}
