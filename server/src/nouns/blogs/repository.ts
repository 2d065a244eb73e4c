import type { Ground } from '../../ground/ground.ts';
import { countEach } from '../../ground/store/counted.ts';
import type { Sql } from '../../ground/store/database.ts';
import { tellChange } from '../../ground/store/event.ts';
import type { BlogTarget } from '../../ports/blogs/blog.ts';
import type { BlogRow } from './entity.ts';

export async function getBlog(sql: Sql, id: string): Promise<BlogRow | null> {
  const [row] = await sql.rows<BlogRow>('SELECT * FROM blog WHERE id = ?', [id]);
  return row ?? null;
}

export async function listBlogs(sql: Sql): Promise<BlogRow[]> {
  return sql.rows<BlogRow>('SELECT * FROM blog ORDER BY id');
}

/** What blogs are called. */
export async function blogNames(sql: Sql): Promise<{ id: string; name: string }[]> {
  return sql.rows('SELECT id, name FROM blog ORDER BY id');
}

export function targetOf(
  row: Pick<
    BlogRow,
    'id' | 'name' | 'address' | 'way' | 'endpoint' | 'media_endpoint' | 'secret' | 'settings' | 'time_limit_ms'
  >,
): BlogTarget {
  return {
    id: row.id,
    name: row.name,
    address: row.address,
    settings: row.settings,
    way: row.way,
    endpoint: row.endpoint,
    mediaEndpoint: row.media_endpoint,
    secret: row.secret,
    timeLimitMs: row.time_limit_ms,
  };
}

/** A blog as something to post to. */
export async function blogTarget(sql: Sql, id: string): Promise<BlogTarget | null> {
  const row = await getBlog(sql, id);
  return row ? targetOf(row) : null;
}

/** A blog was seen to show a post before the moment it was dated for. */
export async function neverAhead({ db, ids }: Ground, id: string): Promise<void> {
  await db.run("UPDATE blog SET settings = JSON_SET(settings, '$.keepsDates', FALSE), rev = rev + 1 WHERE id = ?", [
    id,
  ]);
  await tellChange(db, { ids }, 'blog', id);
}

/** How many pages of each blog are known to be linked to, and how many articles of ours are live there. */
export async function countsOfBlogs(
  sql: Sql,
  ids: readonly string[],
): Promise<(id: string) => { pages: number; out: number }> {
  const counts = await countEach(
    sql,
    ids.flatMap((id) => [
      { key: `${id} pages`, from: 'link_page WHERE blog = ?', parameters: [id] },
      { key: `${id} out`, from: "publication WHERE blog = ? AND state = 'live'", parameters: [id] },
    ]),
  );
  return (id) => ({ pages: counts.get(`${id} pages`) ?? 0, out: counts.get(`${id} out`) ?? 0 });
}
