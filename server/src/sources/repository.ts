import type { Ground } from '../engine/outside.ts';
import type { Sql } from '../store/database.ts';
import type { SourceRow } from './entity.ts';

export async function createSource(ground: Ground, kind: SourceRow['kind'], name: string): Promise<string> {
  const id = ground.ids();
  await ground.db.run('INSERT INTO source (id, kind, name) VALUES (?, ?, ?)', [id, kind, name]);
  return id;
}

export async function listSources(sql: Sql): Promise<(SourceRow & { items: number })[]> {
  return sql.rows(
    'SELECT s.*, (SELECT COUNT(*) FROM item i WHERE i.source = s.id) AS items FROM source s ORDER BY s.id',
  );
}
