import { createHash, randomBytes } from 'node:crypto';
import type { AccessKey, KeyScope, Role } from '@grivo/contract';
import type { Ground } from '../../ground/ground.ts';
import type { Sql } from '../../ground/store/database.ts';
import type { SignedIn } from '../people/sessions.ts';

const PREFIX = 'grivo_';
const digestOf = (key: string): string => createHash('sha256').update(key).digest('hex');

/** Makes a key; only its digest is kept. */
export async function makeKey(
  ground: Ground,
  person: string,
  { name, scope, until }: { name: string; scope: KeyScope; until: string | null },
): Promise<{ id: string; key: string }> {
  const id = ground.ids();
  const key = `${PREFIX}${randomBytes(24).toString('base64url')}`;
  await ground.db.run('INSERT INTO access_key (id, name, scope, token, person, ends_at) VALUES (?)', [
    // Good for the whole of its last day, wherever that day is.
    [id, name, scope, digestOf(key), person, until === null ? null : new Date(Date.parse(until) + 36 * 3_600_000)],
  ]);
  return { id, key };
}

export async function listKeys(sql: Sql): Promise<AccessKey[]> {
  const rows = await sql.rows<{
    id: string;
    name: string;
    scope: KeyScope;
    by: string;
    made: Date;
    used: Date | null;
    revoked: Date | null;
    ends: Date | null;
  }>(
    'SELECT k.id, k.name, k.scope, p.name AS `by`, k.made_at AS made, k.used_at AS used, k.revoked_at AS revoked, k.ends_at AS ends FROM access_key k JOIN person p ON p.id = k.person ORDER BY k.id DESC',
  );
  return rows.map((row) => ({
    ...row,
    made: row.made.toISOString(),
    used: row.used?.toISOString() ?? null,
    revoked: row.revoked?.toISOString() ?? null,
    ends: row.ends?.toISOString() ?? null,
  }));
}

/** @returns false when there is no such key that could be revoked */
export async function revokeKey(sql: Sql, id: string): Promise<boolean> {
  return (
    (await sql.run('UPDATE access_key SET revoked_at = UTC_TIMESTAMP(3) WHERE id = ? AND revoked_at IS NULL', [id])) ===
    1
  );
}

/** What a key may do, as the person it was made by, never more than that person. */
export interface KeyHolder extends SignedIn {
  scope: KeyScope;
}

const RANK: Record<Role, number> = { proofreader: 1, editor: 2, owner: 3 };
const MOST: Record<KeyScope, Role> = { look: 'proofreader', 'hand in': 'editor', edit: 'editor' };

/** Who calls with a key; null when it is none, was revoked or has come to its end. */
export async function holderOf(ground: Ground, key: string): Promise<KeyHolder | null> {
  if (!key.startsWith(PREFIX)) return null;
  const [row] = await ground.db.rows<SignedIn & { key: string; scope: KeyScope; stale: number }>(
    `SELECT p.id, p.name, p.email, p.role, k.id AS \`key\`, k.scope, k.used_at IS NULL OR k.used_at < UTC_TIMESTAMP(3) - INTERVAL 1 MINUTE AS stale
     FROM access_key k JOIN person p ON p.id = k.person WHERE k.token = ? AND k.revoked_at IS NULL AND (k.ends_at IS NULL OR k.ends_at > UTC_TIMESTAMP(3)) AND p.removed_at IS NULL`,
    [digestOf(key)],
  );
  if (!row) return null;
  if (Number(row.stale) === 1)
    await ground.db.run('UPDATE access_key SET used_at = UTC_TIMESTAMP(3) WHERE id = ?', [row.key]);
  const most = MOST[row.scope];
  return {
    id: row.id,
    name: row.name,
    email: row.email,
    role: RANK[row.role] < RANK[most] ? row.role : most,
    scope: row.scope,
  };
}

/** Posts a key that hands in may do: put subjects into sources, and take them. */
const HANDS_IN = [/^\/sources\/[^/]+\/(?:requests|keywords)$/, /^\/pipelines\/[^/]+\/take$/];

/** Whether a key's scope covers a request. */
export function isCovered(scope: KeyScope, method: string, path: string): boolean {
  if (method === 'GET' || method === 'HEAD') return true;
  return scope === 'edit' || (scope === 'hand in' && method === 'POST' && HANDS_IN.some((one) => one.test(path)));
}
