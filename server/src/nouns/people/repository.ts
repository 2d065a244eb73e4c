import { hash, verify } from '@node-rs/argon2';
import { IsNull } from 'typeorm';
import type { Ground } from '../../ground/ground.ts';
import type { Sql } from '../../ground/store/database.ts';
import { type PersonRow, personEntity, type Role } from './entity.ts';
import { endSessions } from './sessions.ts';

/** Adds a person. The address is held in lower case, so that signing in does not depend on it. */
export async function addPerson(
  ground: Ground,
  person: { email: string; name: string; role: Role; password: string },
): Promise<string> {
  const id = ground.ids();
  const email = person.email.trim().toLowerCase();
  const { name, role } = person;
  await ground.db.of(personEntity).insert({ id, email, name, role, password_hash: await hash(person.password) });
  return id;
}

export async function listPeople(sql: Sql): Promise<Pick<PersonRow, 'id' | 'email' | 'name' | 'role'>[]> {
  return sql.of(personEntity).find({
    select: { id: true, email: true, name: true, role: true },
    where: { removed_at: IsNull() },
    order: { name: 'ASC', id: 'ASC' },
  });
}

export async function personById(
  sql: Sql,
  id: string,
): Promise<Pick<PersonRow, 'id' | 'email' | 'name' | 'role' | 'password_hash'> | null> {
  return sql.of(personEntity).findOne({
    select: { id: true, email: true, name: true, role: true, password_hash: true },
    where: { id, removed_at: IsNull() },
  });
}

/** Whether a password is a person's. */
export function isPassword(person: Pick<PersonRow, 'password_hash'>, password: string): Promise<boolean> {
  return verify(person.password_hash, password);
}

/** Gives a person another password and ends their sessions but the one given. */
export async function changePassword({ db }: Ground, id: string, password: string, keep: string | null): Promise<void> {
  const hashed = await hash(password);
  await db.transaction(async (sql) => {
    await sql.of(personEntity).update({ id }, { password_hash: hashed, rev: () => 'rev + 1' });
    await endSessions(sql, id, { allBut: keep });
  });
}

/** Names a person otherwise or gives them another role. @returns false when nobody would be left as owner */
export async function changePerson(
  { db }: Ground,
  id: string,
  change: { name?: string | undefined; role?: Role | undefined },
): Promise<boolean> {
  return db.transaction(async (sql) => {
    if (change.role !== undefined && change.role !== 'owner' && (await isLastOwner(sql, id))) return false;
    const { name, role } = change;
    await sql.of(personEntity).update({ id }, { ...(name && { name }), ...(role && { role }), rev: () => 'rev + 1' });
    return true;
  });
}

/**
 * Takes a person out: their sessions end and their keys are worth nothing any more. What they made keeps their name; the
 * address may be used again. @returns false when nobody would be left as owner
 */
export async function removePerson({ db }: Ground, id: string): Promise<boolean> {
  return db.transaction(async (sql) => {
    if (await isLastOwner(sql, id)) return false;
    await sql.run(
      "UPDATE person SET removed_at = UTC_TIMESTAMP(3), email = CONCAT('removed ', id), password_hash = '', rev = rev + 1 WHERE id = ?",
      [id],
    );
    await sql.run('DELETE FROM session WHERE person = ?', [id]);
    await sql.run('UPDATE access_key SET revoked_at = UTC_TIMESTAMP(3) WHERE person = ? AND revoked_at IS NULL', [id]);
    return true;
  });
}

/** Owners are locked, so that two who take each other out at once do not both succeed. */
async function isLastOwner(sql: Sql, id: string): Promise<boolean> {
  const owners = await sql.rows<{ id: string }>(
    "SELECT id FROM person WHERE role = 'owner' AND removed_at IS NULL ORDER BY id FOR UPDATE",
  );
  return owners.length === 1 && owners[0]!.id === id;
}
