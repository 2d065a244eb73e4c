import type { Act } from '@grivo/contract';
import type { Ground } from '../../ground/ground.ts';
import type { Sql } from '../../ground/store/database.ts';

/** Who does something, and from where. */
export interface Actor {
  id: string;
  name: string;
  from: string;
}

/** What people do to people, sessions, keys and secrets, kept so that it can be told later who did it. */
export async function noteAct(
  { db, ids, log }: Ground,
  actor: Actor | { id: null; name: string; from: string },
  what: Act['what'],
  about: string,
): Promise<void> {
  log.info({ person: actor.id, what, from: actor.from }, 'an act of people');
  await db.run('INSERT INTO act (id, person, name, what, about, from_address) VALUES (?)', [
    [ids(), actor.id, actor.name.slice(0, 120), what, about.slice(0, 300), actor.from.slice(0, 64)],
  ]);
}

/** The newest acts, or those before one. */
export async function listActs(sql: Sql, before: string | undefined, limit: number): Promise<Act[]> {
  const rows = await sql.rows<Omit<Act, 'at' | 'by' | 'from'> & { at: Date; name: string; from_address: string }>(
    `SELECT id, at, name, what, about, from_address FROM act ${before ? 'WHERE id < ?' : ''} ORDER BY id DESC LIMIT ?`,
    before ? [before, limit] : [limit],
  );
  return rows.map(({ id, at, name, what, about, from_address }) => ({
    id,
    at: at.toISOString(),
    by: name,
    what,
    about,
    from: from_address,
  }));
}
