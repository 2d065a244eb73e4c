import type { Database } from '../ground/store/database.ts';
import type { Held } from './ending.ts';
import { runMoves } from './moves.ts';
import { placeAtDesk, placeInLane } from './place.ts';

/**
 * Takes ready rows of one lane under the worker's lease, oldest first from the low-water mark on: rows that moved on leave
 * dead entries at the front of the index, and walking over them grew a claim from 0.4 to 5 ms.
 */
export async function claim(db: Database, lane: string, above: string, most: number, holder: string): Promise<Held[]> {
  return db.transaction(async (sql) => {
    const rows = await sql.rows<Held>(
      'SELECT id AS run, brief FROM step_run WHERE place = ? AND id > ? ORDER BY id LIMIT ? FOR UPDATE SKIP LOCKED',
      [placeInLane(lane), above, most],
    );
    if (rows.length === 0) return rows;
    const ids = rows.map((row) => row.run);
    await sql.run(
      `UPDATE step_run SET ${runMoves.claim.set}, holder = ?, attempts = attempts + 1, started_at = UTC_TIMESTAMP(3) WHERE id IN (?) AND ${runMoves.claim.from}`,
      [holder, ids],
    );
    return rows;
  });
}

/** Lanes with rows in them, most urgent first. One skip over the index for each lane, however long the lanes are. */
export async function fullLanes(db: Database): Promise<string[]> {
  const rows = await db.rows<{ place: string }>(
    "SELECT place FROM step_run WHERE place >= 'L' AND place < 'M' GROUP BY place",
  );
  return rows.map((row) => row.place.slice(1));
}

/** Puts what is due into its lane: retries by the database's clock, slots and waits by the desk clock. */
export async function wakeDue(db: Database, deskNow: number): Promise<number> {
  // Looked for without locks: an update by the place alone also waits for the first row behind what is due, which is
  // nearly always locked by who is just ending it.
  const due = await db.rows<{ id: string }>(
    `(SELECT id FROM step_run WHERE place >= 'T' AND place <= CONCAT('T', UTC_TIMESTAMP(3)) ORDER BY place LIMIT 500)
     UNION ALL (SELECT id FROM step_run WHERE place >= 'D' AND place <= ? ORDER BY place LIMIT 500)`,
    [placeAtDesk(deskNow)],
  );
  if (due.length === 0) return 0;
  return db.run(
    `UPDATE step_run SET ${runMoves.wake.set}
     WHERE id IN (?) AND ${runMoves.wake.from} AND (due_at <= UTC_TIMESTAMP(3) OR due_at IS NULL AND due_desk <= ?)`,
    [due.map(({ id }) => id), Math.floor(deskNow)],
  );
}
