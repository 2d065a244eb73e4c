import { setTimeout as pause } from 'node:timers/promises';
import type { Ground } from '../../ground/ground.ts';
import type { ServiceRow } from './entity.ts';

const MICROS_A_MINUTE = 60_000_000;

/**
 * Waits for the next turn at a service that may be called so often a minute. Turns are evenly apart and kept in one row,
 * so the pace holds over all processes (the virtual scheduling form of the generic cell rate algorithm, ITU-T I.371); a
 * turn taken by who is then killed is lost. Another holds up to as many calls as there are permits, so the wait is short.
 * @returns false when the signal is given before the turn comes
 */
export async function waitForTurn(
  { db }: Pick<Ground, 'db'>,
  { id, calls_a_minute }: Pick<ServiceRow, 'id' | 'calls_a_minute'>,
  signal: AbortSignal,
): Promise<boolean> {
  if (calls_a_minute === null) return true;
  const apart = Math.ceil(MICROS_A_MINUTE / calls_a_minute);
  const micros = await db.transaction(async (sql) => {
    await sql.run('INSERT IGNORE INTO service_turn (service, next_at) VALUES (?, UTC_TIMESTAMP(6))', [id]);
    await sql.run(
      'UPDATE service_turn SET next_at = DATE_ADD(GREATEST(next_at, UTC_TIMESTAMP(6)), INTERVAL ? MICROSECOND) WHERE service = ?',
      [apart, id],
    );
    const [row] = await sql.rows<{ micros: number }>(
      'SELECT TIMESTAMPDIFF(MICROSECOND, UTC_TIMESTAMP(6), next_at) AS micros FROM service_turn WHERE service = ?',
      [id],
    );
    return Number(row?.micros ?? 0) - apart;
  });
  if (micros > 0) await pause(micros / 1_000, undefined, { signal }).catch(() => undefined);
  return !signal.aborted;
}
