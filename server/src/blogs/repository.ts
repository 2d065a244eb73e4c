import type { BlogTarget } from '../adapters/micropub.ts';
import type { Sql } from '../store/database.ts';
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
  row: Pick<BlogRow, 'id' | 'endpoint' | 'media_endpoint' | 'secret' | 'time_limit_ms'>,
): BlogTarget {
  return {
    id: row.id,
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
