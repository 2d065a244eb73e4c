import type { KeptList } from '@grivo/contract';
import type { Ground } from '../../ground/ground.ts';
import type { Sql } from '../../ground/store/database.ts';

/** Lists a person may keep; nobody finds one among more. */
export const MOST_LISTS = 60;

export async function keptLists(sql: Sql, person: string): Promise<KeptList[]> {
  return sql.rows<KeptList>('SELECT id, name, wanted FROM kept_list WHERE person = ? ORDER BY name', [person]);
}

/** Keeps a list by a name; one of the person's that has the name becomes this one. */
export async function keepList(
  { db, ids }: Ground,
  person: string,
  { name, wanted }: Pick<KeptList, 'name' | 'wanted'>,
): Promise<string | 'too many'> {
  if ((await keptLists(db, person)).filter((one) => one.name !== name).length >= MOST_LISTS) return 'too many';
  await db.run(
    'INSERT INTO kept_list (id, person, name, wanted) VALUES (?, ?, ?, ?) ON DUPLICATE KEY UPDATE wanted = VALUES(wanted)',
    [ids(), person, name, wanted],
  );
  const [row] = await db.rows<{ id: string }>('SELECT id FROM kept_list WHERE person = ? AND name = ?', [person, name]);
  return row!.id;
}

/** @returns whether the person has such a list; a name another of them has is refused by the database */
export async function renameList(sql: Sql, person: string, id: string, name: string): Promise<boolean> {
  const [other] = await sql.rows('SELECT 1 FROM kept_list WHERE person = ? AND name = ? AND id <> ?', [
    person,
    name,
    id,
  ]);
  if (other) return false;
  await sql.run('UPDATE kept_list SET name = ? WHERE id = ? AND person = ?', [name, id, person]);
  return true;
}

export async function forgetList(sql: Sql, person: string, id: string): Promise<boolean> {
  return (await sql.run('DELETE FROM kept_list WHERE id = ? AND person = ?', [id, person])) > 0;
}
