import type { Micros } from '@grivo/core';
import type { Ground } from '../engine/outside.ts';
import type { Sql } from '../store/database.ts';

/** The limit of the whole installation, counted by calendar month of the desk clock in UTC. */
export const MONTH = 'month';

export interface Reservation {
  scope: string;
  start: string;
}

export function monthOf(deskMs: number): string {
  return new Date(deskMs).toISOString().slice(0, 7);
}

/**
 * Reserves money before a call. The counter is raised only where it stays under its cap, so the limit holds whatever
 * number of workers ask at once.
 * @returns where it was reserved, null when there is no limit, or the cap that would be passed
 */
export async function reserve(
  sql: Sql,
  deskMs: number,
  micros: Micros,
): Promise<Reservation | null | { capMicros: Micros }> {
  const [limit] = await sql.rows<{ cap: number }>('SELECT cap FROM spending_limit WHERE scope = ?', [MONTH]);
  if (!limit) return null;
  const start = monthOf(deskMs);
  await sql.run('INSERT IGNORE INTO limit_window (scope, start, cap) VALUES (?, ?, ?)', [MONTH, start, limit.cap]);
  const raised = await sql.run(
    'UPDATE limit_window SET reserved = reserved + ? WHERE scope = ? AND start = ? AND spent + reserved + ? <= cap',
    [micros, MONTH, start, micros],
  );
  return raised === 1 ? { scope: MONTH, start } : { capMicros: Number(limit.cap) };
}

/** Turns a reservation into what the call cost; 0 gives it back. */
export async function settle(sql: Sql, reservation: Reservation | null, reserved: Micros, cost: Micros): Promise<void> {
  if (!reservation) return;
  await sql.run('UPDATE limit_window SET reserved = reserved - ?, spent = spent + ? WHERE scope = ? AND start = ?', [
    reserved,
    cost,
    reservation.scope,
    reservation.start,
  ]);
}

/** Sets or, with null, lifts the monthly limit; what is spent and reserved this month stays counted. */
export async function setLimit(ground: Ground, capMicros: Micros | null): Promise<void> {
  await ground.db.transaction(async (sql) => {
    if (capMicros === null) {
      await sql.run('DELETE FROM spending_limit WHERE scope = ?', [MONTH]);
      return;
    }
    await sql.run(
      'INSERT INTO spending_limit (scope, cap) VALUES (?, ?) ON DUPLICATE KEY UPDATE cap = VALUES(cap), rev = rev + 1',
      [MONTH, capMicros],
    );
    await sql.run('UPDATE limit_window SET cap = ? WHERE scope = ? AND start = ?', [
      capMicros,
      MONTH,
      monthOf(ground.desk.now()),
    ]);
  });
}

export interface LimitStanding {
  capMicros: Micros | null;
  spentMicros: Micros;
  reservedMicros: Micros;
  month: string;
}

/** The limit and what is used of it this month. Without a limit the spending is summed from the ledger. */
export async function limitStanding(ground: Ground): Promise<LimitStanding> {
  const month = monthOf(ground.desk.now());
  const [limit] = await ground.db.rows<{ cap: number }>('SELECT cap FROM spending_limit WHERE scope = ?', [MONTH]);
  const [window] = await ground.db.rows<{ spent: number; reserved: number }>(
    'SELECT spent, reserved FROM limit_window WHERE scope = ? AND start = ?',
    [MONTH, month],
  );
  const from = Date.parse(`${month}-01T00:00:00Z`);
  const [sum] = await ground.db.rows<{ micros: number | null }>(
    'SELECT SUM(micros) AS micros FROM ledger WHERE at_desk >= ?',
    [from],
  );
  return {
    capMicros: limit ? Number(limit.cap) : null,
    spentMicros: Number(window?.spent ?? sum?.micros ?? 0),
    reservedMicros: Number(window?.reserved ?? 0),
    month,
  };
}
