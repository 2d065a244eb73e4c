import type { Ground } from '../ground/ground.ts';
import type { Sql } from '../ground/store/database.ts';
import { tellChange } from '../ground/store/event.ts';
import { bookUnknown } from '../ports/answers/booking.ts';
import { briefMoves, runMoves } from './moves.ts';
import { placeInHand } from './place.ts';

/** A step that was in hand when its worker died twice may be what kills them. */
const MOST_LOST = 2;
/** Of several such steps one after another is tried, so that the next death tells which of them it was. */
const APART_SECONDS = 6;
/** However many there were beside it, one that lost so many workers is stopped. */
const LOST_ANYHOW = 4;

/**
 * Gives back what dead processes held: their steps become ready again (the lost attempt is recorded), their permits free,
 * and what their open calls had reserved is booked as spent, since nobody can tell whether it was.
 * @returns lanes that have new rows
 */
export async function reap(ground: Ground): Promise<Set<string>> {
  const lanes = new Set<string>();
  const dead = await ground.db.rows<{ id: string }>('SELECT id FROM worker WHERE lease_until < UTC_TIMESTAMP(3)');
  for (const { id } of dead) for (const lane of await reapOne(ground, id, false)) lanes.add(lane);
  for (const id of await unknownHolders(ground)) for (const lane of await reapOne(ground, id, true)) lanes.add(lane);
  return lanes;
}

/**
 * Holders that are no workers any more: a statement of a worker that was on its way while it was given up for dead takes
 * effect after that, and nobody would ever give back what it took.
 */
async function unknownHolders({ db }: Ground): Promise<string[]> {
  const rows = await db.rows<{ holder: string }>(
    `SELECT h.holder FROM (
       SELECT holder FROM permit WHERE holder IS NOT NULL
       UNION SELECT SUBSTR(place, 2) FROM step_run WHERE place >= 'H' AND place < 'I'
       UNION SELECT holder FROM answer WHERE state = 'pending'
     ) h LEFT JOIN worker w ON w.id = h.holder WHERE w.id IS NULL`,
  );
  return rows.map(({ holder }) => holder);
}

interface LostRun {
  id: string;
  attempts: number;
  /** How often its worker died before this. */
  lost: number;
  home_lane: string;
  started_at: Date | null;
}

/**
 * Steps a dead worker had in hand go to others. One that was in hand at two deaths is suspected of having caused them:
 * alone it stops as a defect, for a person to look at; of several each is tried by itself, some seconds after the other.
 */
async function giveBack(sql: Sql, ground: Ground, runs: readonly LostRun[]): Promise<void> {
  const suspects = runs.filter(({ lost }) => lost + 1 >= MOST_LOST);
  const stopped = suspects.filter(({ lost }) => suspects.length === 1 || lost + 1 >= LOST_ANYHOW);
  const apart = suspects.filter((run) => !stopped.includes(run));
  const again = runs.filter((run) => !suspects.includes(run)).map(({ id }) => id);
  if (again.length > 0)
    await sql.run(
      `UPDATE step_run SET ${runMoves['give back'].set}, lost = lost + 1 WHERE id IN (?) AND ${runMoves['give back'].from}`,
      [again],
    );
  for (const [i, { id }] of apart.entries())
    await sql.run(
      `UPDATE step_run SET ${runMoves.pause.set}, lost = lost + 1, due_at = DATE_ADD(UTC_TIMESTAMP(3), INTERVAL ? SECOND) WHERE id = ? AND ${runMoves.pause.from}`,
      [i * APART_SECONDS, id],
    );
  for (const { id, lost } of stopped) {
    const failure = JSON.stringify({ code: 'defect', message: `its worker died at it ${lost + 1} times`, stack: '' });
    await sql.run(
      `UPDATE step_run SET ${runMoves.fail.set}, lost = lost + 1, failure = ? WHERE id = ? AND ${runMoves.fail.from}`,
      [failure, id],
    );
    const [brief] = await sql.rows<{ brief: string }>('SELECT brief FROM step_run WHERE id = ?', [id]);
    await sql.run(`UPDATE brief SET ${briefMoves.stop.set} WHERE id = ? AND ${briefMoves.stop.from}`, [brief!.brief]);
    await tellChange(sql, ground, 'brief', brief!.brief);
    ground.log.error({ step: id, brief: brief!.brief }, 'a step is stopped: its worker died at it again and again');
  }
}

async function reapOne(ground: Ground, worker: string, unknown: boolean): Promise<string[]> {
  return ground.db.transaction(async (sql) => {
    const [row] = await sql.rows<{ id: string; late: number }>(
      'SELECT id, lease_until < UTC_TIMESTAMP(3) AS late FROM worker WHERE id = ? FOR UPDATE',
      [worker],
    );
    if (unknown ? row !== undefined : row?.late !== 1) return [];
    const runs = await sql.rows<LostRun>(
      'SELECT id, attempts, lost, home_lane, started_at FROM step_run WHERE place = ? FOR UPDATE',
      [placeInHand(worker)],
    );
    if (runs.length > 0) {
      await sql.run('INSERT IGNORE INTO attempt (step_run, n, worker, started_at, result) VALUES ?', [
        runs.map((run) => [run.id, run.attempts, worker, run.started_at, 'lost']),
      ]);
      await giveBack(sql, ground, runs);
    }
    const pending = await sql.rows<{ digest: string; token: string }>(
      "SELECT digest, token FROM answer WHERE state = 'pending' AND holder = ? FOR UPDATE",
      [worker],
    );
    for (const answer of pending) await bookUnknown(sql, ground, answer.digest, answer.token);
    await sql.run('UPDATE permit SET holder = NULL WHERE holder = ?', [worker]);
    await sql.run('UPDATE source SET looking_until = NULL, looking_by = NULL WHERE looking_by = ?', [worker]);
    await sql.run('DELETE FROM worker WHERE id = ?', [worker]);
    ground.log.info({ worker, steps: runs.length, calls: pending.length }, 'gave back what a dead worker held');
    return runs.map((run) => run.home_lane);
  });
}
