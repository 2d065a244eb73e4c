import type { Ground } from '../ground/ground.ts';

const AT_ONCE = 5_000;

/**
 * Forgets what nobody needs any more: hints of changes after a day, failed attempts of steps that ended 90 days ago,
 * firings after 30 days, sessions that ran out, and keys of requests after two days.
 * @returns how many rows went
 */
export async function thin({ db }: Ground): Promise<number> {
  let gone = 0;
  for (const statement of [
    'DELETE FROM event WHERE at < DATE_SUB(UTC_TIMESTAMP(3), INTERVAL 1 DAY)',
    'DELETE FROM attempt WHERE ended_at < DATE_SUB(UTC_TIMESTAMP(3), INTERVAL 90 DAY)',
    'DELETE FROM firing WHERE at < DATE_SUB(UTC_TIMESTAMP(3), INTERVAL 30 DAY)',
    'DELETE FROM session WHERE expires_at < UTC_TIMESTAMP(3)',
    'DELETE FROM idempotency WHERE at < DATE_SUB(UTC_TIMESTAMP(3), INTERVAL 2 DAY)',
  ])
    gone += await db.run(`${statement} LIMIT ${AT_ONCE}`);
  return gone;
}
