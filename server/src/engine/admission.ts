import type { Sql } from '../store/database.ts';
import { type BriefChange, type ChangePorts, changeOf } from './briefChange.ts';
import { BRIEF_COLUMNS, type BriefRow, newBriefState, type Procedures } from './briefState.ts';
import { Mismatch, writeEvents, writeNewRuns, writeRevs } from './commitBatch.ts';
import type { Ground } from './outside.ts';

interface PipelineRow {
  open_limit: number;
  admitted_desk: number | null;
  procedure_id: string;
  version: number;
}

export interface AdmissionPorts extends Omit<ChangePorts, 'ids'> {
  ground: Ground;
  procedures: Procedures;
  /** The worker that takes first steps straight on. */
  holder: string;
  /** First steps that were to be taken on and were not committed. */
  onTakenBack: (service: string | null) => void;
}

export interface Admitted {
  /** Briefs let in, with their first runs. */
  changes: BriefChange[];
  /** Whether there was room for more than one transaction lets in. */
  more: boolean;
}

/** Briefs let in by one transaction. */
const MOST_AT_ONCE = 200;

/**
 * Lets waiting briefs of a pipeline into work, oldest first: no more at once than the pipeline and its 'take' allow, and
 * no closer than 'take' spaces them. The pipeline's row is locked, so the count holds with any number of processes; the
 * briefs are not, their rev tells when somebody changed one. First steps are handed to the worker that lets them in, as long as it has room.
 */
export async function admit(ports: AdmissionPorts, pipeline: string): Promise<Admitted> {
  const { ground, procedures, holder, serviceFor, handoff } = ports;
  const none: Admitted = { changes: [], more: false };
  let changes: BriefChange[] = [];
  const takeBack = () => {
    for (const { fresh } of changes) for (const { handed, service } of fresh) if (handed) ports.onTakenBack(service);
    changes = [];
  };
  try {
    return await ground.db.transaction(async (sql) => {
      takeBack();
      const now = ground.desk.now();
      const [row] = await sql.rows<PipelineRow>(
        'SELECT open_limit, admitted_desk, procedure_id, version FROM pipeline WHERE id = ? FOR UPDATE',
        [pipeline],
      );
      if (!row) return none;
      const { room, apart } = await roomOf(sql, procedures, pipeline, row, now);
      if (room <= 0) return none;
      const briefs = await sql.rows<BriefRow>(
        `SELECT ${BRIEF_COLUMNS} WHERE b.pipeline = ? AND b.trial = 0 AND b.standing = 'waiting' ORDER BY b.priority, b.id LIMIT ?`,
        [pipeline, Math.min(room, MOST_AT_ONCE)],
      );
      if (briefs.length === 0) return none;
      for (const brief of briefs) {
        const state = await newBriefState(sql, procedures, brief);
        changes.push(changeOf(state, [], { ids: ground.ids, serviceFor, handoff }));
      }
      await writeRevs(sql, changes, now);
      await writeNewRuns(sql, changes, holder);
      await writeEvents(sql, changes, ground);
      if (apart > 0) await sql.run('UPDATE pipeline SET admitted_desk = ? WHERE id = ?', [now, pipeline]);
      return { changes, more: briefs.length === MOST_AT_ONCE && room > MOST_AT_ONCE };
    });
  } catch (error) {
    takeBack();
    // Somebody changed one of the briefs meanwhile, as by setting it aside: they are looked at again.
    if (error instanceof Mismatch) return { changes: [], more: true };
    throw error;
  }
}

/** How many more briefs of a pipeline may be in work now, and how far apart they are let in, in milliseconds. */
async function roomOf(
  sql: Sql,
  procedures: Procedures,
  pipeline: string,
  row: PipelineRow,
  now: number,
): Promise<{ room: number; apart: number }> {
  const { document } = await procedures.get(sql, row.procedure_id, row.version);
  const take = document.steps.find((step) => step.kind === 'take');
  const apart = take && take.apartMinutes > 0 ? take.apartMinutes * 60_000 : 0;
  if (apart > 0 && row.admitted_desk !== null && row.admitted_desk + apart > now) return { room: 0, apart };
  const [{ n } = { n: 0 }] = await sql.rows<{ n: number }>(
    "SELECT COUNT(*) AS n FROM brief WHERE pipeline = ? AND trial = 0 AND standing = 'in work'",
    [pipeline],
  );
  const room = Math.min(row.open_limit, take?.atOnce ?? row.open_limit) - n;
  return { room: apart > 0 ? Math.min(room, 1) : room, apart };
}

/** Pipelines with briefs waiting to be let in. */
export async function pipelinesWaiting(sql: Sql): Promise<string[]> {
  const rows = await sql.rows<{ id: string }>(
    "SELECT p.id FROM pipeline p WHERE EXISTS (SELECT 1 FROM brief b WHERE b.pipeline = p.id AND b.trial = 0 AND b.standing = 'waiting')",
  );
  return rows.map((row) => row.id);
}
