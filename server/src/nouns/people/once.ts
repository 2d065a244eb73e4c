import type { Sql } from '../../ground/store/database.ts';

/** A request that was made with a key: it is done once, and its answer kept. */
export interface KeptRequest {
  request: string;
  status: number | null;
  body: unknown;
  /** Whether it was begun so long ago that nobody is still at it. */
  late: number;
}

/** No request takes longer: a look at a source, the longest, is given up after five minutes. */
const LATE_SECONDS = 900;

/** @returns whether this request is the first with its key */
export async function beginOnce(sql: Sql, person: string, key: string, request: string): Promise<boolean> {
  const made = await sql.run('INSERT IGNORE INTO idempotency (person, key_, request) VALUES (?, ?, ?)', [
    person,
    key,
    request,
  ]);
  return made > 0;
}

export async function keptRequest(sql: Sql, person: string, key: string): Promise<KeptRequest | null> {
  const [row] = await sql.rows<KeptRequest>(
    'SELECT request, status, body, at < DATE_SUB(UTC_TIMESTAMP(3), INTERVAL ? SECOND) AS late FROM idempotency WHERE person = ? AND key_ = ?',
    [LATE_SECONDS, person, key],
  );
  return row ?? null;
}

/** @param body as it is answered; null where nothing is, or where it must not be kept */
export async function keepAnswered(
  sql: Sql,
  person: string,
  key: string,
  { status, body }: { status: number; body: unknown },
): Promise<void> {
  await sql.run('UPDATE idempotency SET status = ?, body = ? WHERE person = ? AND key_ = ?', [
    status,
    body === null ? null : JSON.stringify(body),
    person,
    key,
  ]);
}

/** A request that failed leaves nothing behind and may be made again. */
export async function forgetRequest(sql: Sql, person: string, key: string): Promise<void> {
  await sql.run('DELETE FROM idempotency WHERE person = ? AND key_ = ?', [person, key]);
}
