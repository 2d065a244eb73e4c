import type { Failure } from '@grivo/core';
import type { Ground } from '../ground/ground.ts';
import type { Sql } from '../ground/store/database.ts';
import { tellChange } from '../ground/store/event.ts';
import { briefMoves, runMoves } from './moves.ts';

/**
 * Stops what is open of a brief where it stands, inside a transaction that has locked the brief. A call under way is not
 * waited for: what it brings is kept and not paid again.
 * @returns whether there was anything to stop
 */
export async function stopRuns(sql: Sql, ground: Ground, brief: string, why: Failure): Promise<boolean> {
  const stopped = await sql.run(
    `UPDATE step_run SET ${runMoves.stop.set}, failure = ? WHERE brief = ? AND ${runMoves.stop.from}`,
    [JSON.stringify(why), brief],
  );
  if (stopped === 0) return false;
  await sql.run(`UPDATE brief SET ${briefMoves.stop.set} WHERE id = ? AND ${briefMoves.stop.from}`, [brief]);
  await tellChange(sql, ground, 'brief', brief);
  return true;
}

const OVERDUE =
  "b.trial = 0 AND b.standing = 'in work' AND b.in_work_since < DATE_SUB(UTC_TIMESTAMP(3), INTERVAL p.most_minutes MINUTE)";

/**
 * Stops briefs that are in work at a stretch for longer than their pipeline gives them, as those that wait for what never
 * comes.
 * @returns how many
 */
export async function stopOverdue(ground: Ground): Promise<number> {
  const late = await ground.db.rows<{ id: string; minutes: number }>(
    `SELECT b.id, p.most_minutes AS minutes FROM pipeline p JOIN brief b ON b.pipeline = p.id
     WHERE p.most_minutes IS NOT NULL AND ${OVERDUE} LIMIT 50`,
  );
  let many = 0;
  for (const { id, minutes } of late) {
    const stopped = await ground.db.transaction(async (sql) => {
      // Looked at again under its lock: meanwhile it may have gone on to a hold or a slot.
      const [still] = await sql.rows(
        `SELECT b.id FROM brief b JOIN pipeline p ON p.id = b.pipeline WHERE b.id = ? AND ${OVERDUE} FOR UPDATE`,
        [id],
      );
      return still !== undefined && stopRuns(sql, ground, id, { code: 'took-too-long', minutes });
    });
    if (stopped) many++;
  }
  return many;
}
