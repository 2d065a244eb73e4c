import type { SystemState } from '@grivo/contract';
import type { Ground } from '../../ground/ground.ts';

/** The clocks, the processes and the work at hand. */
export async function workNow({ db, desk }: Ground): Promise<Omit<SystemState, 'version'>> {
  await desk.refresh();
  const now = desk.now();
  // One statement sees one moment: a step that wakes between two would be counted by neither.
  const [[counts], workers] = await Promise.all([
    db.rows<
      Record<'ready' | 'running' | 'retrying' | 'stopped' | 'waiting' | 'overdue', number> & { next: number | null }
    >(
      `SELECT COALESCE(SUM(s.state = 'ready'), 0) AS ready, COALESCE(SUM(s.state = 'running'), 0) AS running,
        COALESCE(SUM(s.state = 'waiting' AND s.due_at IS NOT NULL), 0) AS retrying, COALESCE(SUM(s.state = 'stopped'), 0) AS stopped,
        COALESCE(SUM(s.due_desk <= ?), 0) + (SELECT COUNT(*) FROM schedule WHERE due_desk <= ?) AS overdue,
        LEAST(COALESCE(MIN(s.due_desk), 9e15), COALESCE((SELECT MIN(due_desk) FROM schedule), 9e15)) AS next,
        (SELECT COUNT(*) FROM brief WHERE standing = 'waiting' AND trial = 0) AS waiting
       FROM step_run s WHERE s.place IS NOT NULL`,
      [now, now],
    ),
    db.rows<SystemState['workers'][number]>(
      'SELECT id, role, started_at AS startedAt FROM worker WHERE lease_until > UTC_TIMESTAMP(3) ORDER BY id',
    ),
  ]);
  const of = (name: 'ready' | 'running' | 'retrying' | 'stopped' | 'waiting' | 'overdue') =>
    Number(counts?.[name] ?? 0);
  const next = Number(counts?.next ?? 9e15);
  return {
    desk: { now, speed: desk.speed },
    workers,
    work: {
      // What is due by the desk clock and not begun yet counts as ready, so that 'nothing at hand' means just that.
      ready: of('ready') + of('overdue'),
      running: of('running'),
      retrying: of('retrying'),
      stopped: of('stopped'),
      waitingBriefs: of('waiting'),
      nextDueDesk: next >= 9e15 ? null : next,
    },
  };
}
