import { createHash, randomBytes } from 'node:crypto';
import { hash, verify } from '@node-rs/argon2';
import type { Ground } from '../../ground/ground.ts';
import type { Sql } from '../../ground/store/database.ts';
import type { PersonRow, Role } from './entity.ts';

const SESSION_DAYS = 14;
/** A session nobody used for so long has ended. */
export const IDLE_HOURS = 12;

export interface SignedIn {
  id: string;
  name: string;
  email: string;
  role: Role;
}

/** Where a session is from, as its person would know it again. */
export interface Whence {
  from: string;
  agent: string;
}

/** Hash of a password nobody has, compared against when there is no such person, so that both take as long. */
const NOBODY = hash(randomBytes(16).toString('hex'));

/** @returns the person and the token for the cookie, or null when address or password is wrong */
export async function signIn(
  ground: Ground,
  email: string,
  password: string,
  whence: Whence = { from: '', agent: '' },
): Promise<{ token: string; person: SignedIn } | null> {
  const [person] = await ground.db.rows<PersonRow>('SELECT * FROM person WHERE email = ? AND removed_at IS NULL', [
    email.trim().toLowerCase(),
  ]);
  const well = await verify(person?.password_hash ?? (await NOBODY), password);
  if (!person || !well) return null;
  const token = randomBytes(32).toString('base64url');
  await ground.db.run(
    'INSERT INTO session (token, person, expires_at, id, seen_at, from_address, agent) VALUES (?, ?, DATE_ADD(UTC_TIMESTAMP(3), INTERVAL ? DAY), ?, UTC_TIMESTAMP(3), ?, ?)',
    [
      digestOf(token),
      person.id,
      SESSION_DAYS,
      ground.ids(),
      whence.from.slice(0, 64),
      // Only what can be shown of it: it comes from outside.
      whence.agent.replace(/[^\x20-\x7e]/g, ' ').slice(0, 200),
    ],
  );
  return { token, person: { id: person.id, name: person.name, email: person.email, role: person.role } };
}

const STANDS = `s.expires_at > UTC_TIMESTAMP(3) AND s.seen_at > DATE_SUB(UTC_TIMESTAMP(3), INTERVAL ${IDLE_HOURS} HOUR)`;

/**
 * The person of a session, while it stands.
 * @param used whether a person is at the desk: only then does it count as used
 */
export async function personOf(ground: Ground, token: string, used: boolean): Promise<SignedIn | null> {
  const [row] = await ground.db.rows<SignedIn & { stale: number }>(
    `SELECT p.id, p.name, p.email, p.role, s.seen_at < DATE_SUB(UTC_TIMESTAMP(3), INTERVAL 1 MINUTE) AS stale
     FROM session s JOIN person p ON p.id = s.person WHERE s.token = ? AND ${STANDS} AND p.removed_at IS NULL`,
    [digestOf(token)],
  );
  if (!row) return null;
  if (used && Number(row.stale) === 1)
    await ground.db.run('UPDATE session SET seen_at = UTC_TIMESTAMP(3) WHERE token = ?', [digestOf(token)]);
  return { id: row.id, name: row.name, email: row.email, role: row.role };
}

export async function signOut(ground: Ground, token: string): Promise<void> {
  await ground.db.run('DELETE FROM session WHERE token = ?', [digestOf(token)]);
}

export interface OwnSession {
  id: string;
  since: string;
  seen: string;
  from: string;
  agent: string;
  /** The one that asks. */
  here: boolean;
}

/** The sessions of a person that stand, the last used first. */
export async function sessionsOf(sql: Sql, person: string, token: string | null): Promise<OwnSession[]> {
  const rows = await sql.rows<{
    id: string;
    token: string;
    created_at: Date;
    seen_at: Date;
    from_address: string;
    agent: string;
  }>(
    `SELECT s.id, s.token, s.created_at, s.seen_at, s.from_address, s.agent FROM session s WHERE s.person = ? AND ${STANDS} ORDER BY s.seen_at DESC LIMIT 100`,
    [person],
  );
  const own = token === null ? null : digestOf(token);
  return rows.map((row) => ({
    id: row.id,
    since: row.created_at.toISOString(),
    seen: row.seen_at.toISOString(),
    from: row.from_address,
    agent: row.agent,
    here: row.token === own,
  }));
}

/** Ends sessions of a person: one, or all but the one given. @returns how many */
export async function endSessions(
  sql: Sql,
  person: string,
  which: { id: string } | { allBut: string | null },
): Promise<number> {
  return 'id' in which
    ? sql.run('DELETE FROM session WHERE person = ? AND id = ?', [person, which.id])
    : sql.run('DELETE FROM session WHERE person = ? AND token <> ?', [
        person,
        which.allBut === null ? '' : digestOf(which.allBut),
      ]);
}

/** Only the digest is stored: who reads the database cannot sign in with it. */
function digestOf(token: string): string {
  return createHash('sha256').update(token).digest('hex');
}
