import type { Sql } from './database.ts';

/** Tables of what has a page of its own. */
export type Table =
  | 'article'
  | 'blog'
  | 'brief'
  | 'destination'
  | 'house_style'
  | 'label'
  | 'person'
  | 'pipeline'
  | 'routine'
  | 'service'
  | 'source';

/** Whether there is a row with an id. */
export async function isThere(sql: Sql, table: Table, id: string): Promise<boolean> {
  return (await sql.rows(`SELECT 1 FROM ${table} WHERE id = ?`, [id])).length > 0;
}

/** Whether there is any row. */
export async function isAny(sql: Sql, table: Table): Promise<boolean> {
  return (await sql.rows(`SELECT 1 FROM ${table} LIMIT 1`)).length > 0;
}
