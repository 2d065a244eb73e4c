import type { HookOutcome } from '@grivo/contract';
import { type Failure, wordsOf } from '@grivo/core';
import { z } from 'zod';
import type { Secrets } from '../../ground/config/secrets.ts';
import type { Ground } from '../../ground/ground.ts';
import { sha } from '../../ground/sha.ts';
import type { Sql } from '../../ground/store/database.ts';

/** The secret part of a hook's address, the same for every asking until it is renewed. */
function tokenOf(secrets: Secrets, source: string, n: number): string {
  return secrets.derive(`hook address ${source} ${n}`).toString('base64url');
}

/** What calls of a hook are signed with. */
export function hookSecret(secrets: Secrets, source: string, n: number): Buffer {
  return secrets.derive(`hook ${source} ${n}`).subarray(0, 24);
}

/** The address and secret of a hook; they are made when they are first asked for. */
export async function openHook(
  ground: Ground,
  secrets: Secrets,
  source: string,
): Promise<{ token: string; secret: Buffer }> {
  const { db } = ground;
  await db.run('INSERT IGNORE INTO hook (source, n, token) VALUES (?, 1, ?)', [
    source,
    sha(tokenOf(secrets, source, 1)),
  ]);
  const [row] = await db.rows<{ n: number }>('SELECT n FROM hook WHERE source = ?', [source]);
  return { token: tokenOf(secrets, source, row!.n), secret: hookSecret(secrets, source, row!.n) };
}

/** Another address and secret; the ones before are worth nothing any more. */
export async function renewHook(ground: Ground, secrets: Secrets, source: string): Promise<void> {
  await openHook(ground, secrets, source);
  await ground.db.transaction(async (sql) => {
    const [row] = await sql.rows<{ n: number }>('SELECT n FROM hook WHERE source = ? FOR UPDATE', [source]);
    const n = row!.n + 1;
    await sql.run('UPDATE hook SET n = ?, token = ? WHERE source = ?', [n, sha(tokenOf(secrets, source, n)), source]);
  });
}

export async function hookBy(sql: Sql, token: string): Promise<{ source: string; n: number } | null> {
  const [row] = await sql.rows<{ source: string; n: number }>('SELECT source, n FROM hook WHERE token = ?', [
    sha(token),
  ]);
  return row ?? null;
}

export interface CallRow {
  key: string;
  body: string;
  item: string | null;
  briefs: string[];
  atDesk: number;
}

export async function callBy(sql: Sql, source: string, key: string): Promise<CallRow | null> {
  const [row] = await sql.rows<{ body: string; item: string | null; briefs: unknown; at_desk: number }>(
    'SELECT body, item, briefs, at_desk FROM hook_call WHERE source = ? AND key_ = ?',
    [source, key],
  );
  if (!row) return null;
  return {
    key,
    body: row.body,
    item: row.item,
    briefs: z.array(z.string()).catch([]).parse(row.briefs),
    atDesk: Number(row.at_desk),
  };
}

export async function callsOf(
  sql: Sql,
  source: string,
): Promise<{ key: string; atDesk: number; item: string | null; subject: string }[]> {
  const rows = await sql.rows<{ key_: string; at_desk: number; item: string | null; subject: string | null }>(
    'SELECT c.key_, c.at_desk, c.item, i.subject FROM hook_call c LEFT JOIN item i ON i.id = c.item WHERE c.source = ? ORDER BY c.at_desk DESC LIMIT 20',
    [source],
  );
  return rows.map((row) => ({
    key: row.key_,
    atDesk: Number(row.at_desk),
    item: row.item,
    subject: row.subject ?? 'run',
  }));
}

interface OutcomeRow {
  id: string;
  standing: string;
  title: string | null;
  address: string | null;
  failure: Failure | null;
}

/** What became of a call: the briefs made of it, each with its article and where it is out. */
export async function outcomeOf(sql: Sql, call: CallRow): Promise<HookOutcome> {
  const rows = await sql.rows<OutcomeRow>(
    `SELECT b.id, b.standing, a.title,
       (SELECT p.address FROM publication p WHERE p.article = a.id AND p.state = 'live' ORDER BY p.id LIMIT 1) AS address,
       (SELECT r.failure FROM step_run r WHERE r.brief = b.id AND r.state = 'stopped' ORDER BY r.id DESC LIMIT 1) AS failure
     FROM brief b LEFT JOIN article a ON a.brief = b.id AND a.line = ''
     WHERE b.id IN (?) OR b.id IN (SELECT bi.brief FROM brief_item bi WHERE bi.item = ?) ORDER BY b.id`,
    [call.briefs.length > 0 ? call.briefs : ['-'], call.item ?? '-'],
  );
  const [item] = call.item
    ? await sql.rows<{ left_out: string | null }>('SELECT left_out FROM item WHERE id = ?', [call.item])
    : [];
  const waiting = item?.left_out === 'to confirm' ? 'waiting to be confirmed' : item?.left_out ? 'left out' : 'waiting';
  return {
    key: call.key,
    received: new Date(call.atDesk).toISOString(),
    standing: rows[0]?.standing ?? waiting,
    briefs: rows.map(({ id, standing, title, address, failure }) => {
      const words = standing === 'stopped' && failure ? wordsOf(failure) : null;
      return {
        id,
        standing,
        article: title === null ? null : { title, address },
        trouble: words && { sentence: words.sentence, mend: words.mend },
      };
    }),
  };
}
