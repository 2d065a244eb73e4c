import type { Procedures } from '../../engine/briefState.ts';
import type { Ground } from '../../ground/ground.ts';
import type { Sql } from '../../ground/store/database.ts';
import type { Groups } from '../sources/groups.ts';
import { lookAndTake } from '../sources/look.ts';

interface ScheduleRow {
  id: string;
  kind: 'look';
  ref: string;
  due_desk: number;
  every_minutes: number;
}

/** Schedules whose sources are looked at outside at the same time. */
const MOST_LOOKING = 6;

/**
 * Fires what is due by the desk clock. The firing's key (schedule, due time) makes one of any number of workers; the work
 * it does is committed with it. After downtime an overdue look fires once, and the next is due an interval from now.
 *
 * Sources outside are looked at before, without holding anything up: what they bring is kept by its identity, and only the
 * firing takes of it. A worker that dies between the two leaves items nobody has taken yet, and the next one takes them.
 */
export class Firing {
  private readonly looking = new Map<string, Promise<void>>();

  constructor(
    private readonly ground: Ground,
    private readonly procedures: Procedures,
    /** Looks at a source outside; false while somebody else does. */
    private readonly look: (source: string) => Promise<boolean>,
    /** Told when something was taken. */
    private readonly onFired: () => void,
    /** Groups of the lists a pipeline takes from. */
    private readonly groups: (pipeline: string) => Promise<Groups> = async () => new Map(),
  ) {}

  /** Fires what is due now; what has to look outside first fires when it has. */
  async due(): Promise<void> {
    const { ground, procedures, looking } = this;
    const now = ground.desk.now();
    const due = await ground.db.rows<ScheduleRow>(
      'SELECT id, kind, ref, due_desk, every_minutes FROM schedule WHERE due_desk <= ? ORDER BY due_desk LIMIT 100',
      [now],
    );
    for (const schedule of due) {
      if (looking.has(schedule.id)) continue;
      const outside = await outsideSources(ground.db, procedures, schedule.ref);
      if (outside.length === 0) {
        await this.fire(schedule, now);
        continue;
      }
      if (looking.size >= MOST_LOOKING) continue;
      const work = this.lookAndFire(schedule, outside, now)
        .catch((error: unknown) => ground.log.warn({ err: error, pipeline: schedule.ref }, 'a look was not finished'))
        .finally(() => looking.delete(schedule.id));
      looking.set(schedule.id, work);
    }
  }

  private async lookAndFire(schedule: ScheduleRow, sources: readonly string[], now: number): Promise<void> {
    for (const source of sources) if (!(await this.look(source))) return;
    await this.fire(schedule, now);
  }

  private async fire(schedule: ScheduleRow, now: number): Promise<void> {
    await fire(this.ground, this.procedures, schedule, now, await this.groups(schedule.ref));
    this.onFired();
  }

  /** Ends when no look is under way. */
  async settled(): Promise<void> {
    await Promise.all(this.looking.values());
  }
}

/** Sources of a pipeline that are looked at outside. */
export async function outsideSources(sql: Sql, procedures: Procedures, pipeline: string): Promise<string[]> {
  const [row] = await sql.rows<{ procedure_id: string; version: number }>(
    'SELECT procedure_id, version FROM pipeline WHERE id = ?',
    [pipeline],
  );
  if (!row) return [];
  const { document } = await procedures.get(sql, row.procedure_id, row.version);
  const sources = document.steps.flatMap((step) => (step.kind === 'take' && !step.off ? step.sources : []));
  if (sources.length === 0) return [];
  const outside = await sql.rows<{ id: string }>(
    "SELECT id FROM source WHERE id IN (?) AND kind NOT IN ('hook', 'requests') AND (kind <> 'keywords' OR JSON_VALUE(settings, '$.site') IS NOT NULL)",
    [sources],
  );
  return sources.filter((source) => outside.some(({ id }) => id === source));
}

async function fire(
  ground: Ground,
  procedures: Procedures,
  schedule: ScheduleRow,
  now: number,
  groups: Groups,
): Promise<void> {
  let more = await ground.db.transaction(async (sql) => {
    if (
      (await sql.run('INSERT IGNORE INTO firing (schedule, due_desk) VALUES (?, ?)', [
        schedule.id,
        schedule.due_desk,
      ])) === 0
    )
      return null;
    const interval = schedule.every_minutes * 60_000;
    const missed = Math.floor((now - schedule.due_desk) / interval);
    await sql.run('UPDATE schedule SET due_desk = ? WHERE id = ? AND due_desk = ?', [
      schedule.due_desk + (missed + 1) * interval,
      schedule.id,
      schedule.due_desk,
    ]);
    return (await lookAndTake(sql, ground, procedures, schedule.ref, { groups })).more;
  });
  // What one transaction does not take, others do; what they leave behind is new at the next look.
  while (more) {
    const after = more;
    more = await ground.db.transaction(
      async (sql) => (await lookAndTake(sql, ground, procedures, schedule.ref, { groups, after })).more,
    );
  }
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
