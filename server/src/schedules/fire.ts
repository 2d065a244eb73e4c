import type { Procedures } from '../engine/briefState.ts';
import type { Ground } from '../engine/outside.ts';
import { lookAndTake } from '../sources/look.ts';

interface ScheduleRow {
  id: string;
  kind: 'look';
  ref: string;
  due_desk: number;
  every_minutes: number;
}

/**
 * Fires what is due by the desk clock. The firing's key (schedule, due time) makes one of any number of workers; the work
 * it does is committed with it. After downtime an overdue look fires once, and the next is due an interval from now.
 * @returns whether anything fired
 */
export async function fireDue(ground: Ground, procedures: Procedures): Promise<boolean> {
  const now = ground.desk.now();
  const due = await ground.db.rows<ScheduleRow>(
    'SELECT id, kind, ref, due_desk, every_minutes FROM schedule WHERE due_desk <= ? ORDER BY due_desk LIMIT 100',
    [now],
  );
  for (const schedule of due) await fire(ground, procedures, schedule, now);
  return due.length > 0;
}

async function fire(ground: Ground, procedures: Procedures, schedule: ScheduleRow, now: number): Promise<void> {
  await ground.db.transaction(async (sql) => {
    if (
      (await sql.run('INSERT IGNORE INTO firing (schedule, due_desk) VALUES (?, ?)', [
        schedule.id,
        schedule.due_desk,
      ])) === 0
    )
      return;
    const interval = schedule.every_minutes * 60_000;
    const missed = Math.floor((now - schedule.due_desk) / interval);
    await sql.run('UPDATE schedule SET due_desk = ? WHERE id = ? AND due_desk = ?', [
      schedule.due_desk + (missed + 1) * interval,
      schedule.id,
      schedule.due_desk,
    ]);
    await lookAndTake(sql, ground, procedures, schedule.ref);
  });
}

/** Keeps a pipeline's schedule in step with its procedure: on and with an interval, it looks; otherwise it does not. */
export async function scheduleLooks(
  ground: Ground,
  sql: Pick<Ground['db'], 'run' | 'rows'>,
  pipeline: string,
  everyMinutes: number | null,
): Promise<void> {
  if (everyMinutes === null) {
    await sql.run("DELETE FROM schedule WHERE kind = 'look' AND ref = ?", [pipeline]);
    return;
  }
  await sql.run(
    "INSERT INTO schedule (id, kind, ref, due_desk, every_minutes) VALUES (?, 'look', ?, ?, ?) ON DUPLICATE KEY UPDATE every_minutes = VALUES(every_minutes)",
    [ground.ids(), pipeline, ground.desk.now(), everyMinutes],
  );
}
