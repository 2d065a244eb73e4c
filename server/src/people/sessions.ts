import { createHash, randomBytes } from 'node:crypto';
import { hash, verify } from '@node-rs/argon2';
import type { Ground } from '../engine/outside.ts';
import type { Sql } from '../store/database.ts';
import type { PersonRow, Role } from './entity.ts';

const SESSION_DAYS = 14;

/** Adds a person. The address is held in lower case, so that signing in does not depend on it. */
export async function addPerson(
  ground: Ground,
  person: { email: string; name: string; role: Role; password: string },
): Promise<string> {
  const id = ground.ids();
  const email = person.email.trim().toLowerCase();
  await ground.db.run('INSERT INTO person (id, email, name, role, password_hash) VALUES (?)', [
    [id, email, person.name, person.role, await hash(person.password)],
  ]);
  return id;
}

/** Hash of a password nobody has, compared against when there is no such person, so that both take as long. */
const NOBODY = hash(randomBytes(16).toString('hex'));

/** @returns the token for the cookie, or null when address or password is wrong */
export async function signIn(ground: Ground, email: string, password: string): Promise<string | null> {
  const [person] = await ground.db.rows<PersonRow>('SELECT * FROM person WHERE email = ?', [
    email.trim().toLowerCase(),
  ]);
  const well = await verify(person?.password_hash ?? (await NOBODY), password);
  if (!person || !well) return null;
  const token = randomBytes(32).toString('base64url');
  await ground.db.run(
    'INSERT INTO session (token, person, expires_at) VALUES (?, ?, DATE_ADD(UTC_TIMESTAMP(3), INTERVAL ? DAY))',
    [digestOf(token), person.id, SESSION_DAYS],
  );
  return token;
}

export interface SignedIn {
  id: string;
  name: string;
  email: string;
  role: Role;
}

export async function personOf(ground: Ground, token: string): Promise<SignedIn | null> {
  const [row] = await ground.db.rows<SignedIn>(
    'SELECT p.id, p.name, p.email, p.role FROM session s JOIN person p ON p.id = s.person WHERE s.token = ? AND s.expires_at > UTC_TIMESTAMP(3)',
    [digestOf(token)],
  );
  return row ?? null;
}

export async function signOut(ground: Ground, token: string): Promise<void> {
  await ground.db.run('DELETE FROM session WHERE token = ?', [digestOf(token)]);
}

/** Only the digest is stored: who reads the database cannot sign in with it. */
function digestOf(token: string): string {
  return createHash('sha256').update(token).digest('hex');
}

export async function listPeople(sql: Sql): Promise<Pick<PersonRow, 'id' | 'email' | 'name' | 'role'>[]> {
  return sql.rows('SELECT id, email, name, role FROM person ORDER BY name, id');
}
