import type { ProcedureDocument } from '@grivo/core';
import type { Ground } from '../ground/ground.ts';
import type { Sql } from '../ground/store/database.ts';
import { type BriefChange, type ChangePorts, changeOf } from './briefChange.ts';
import { BRIEF_COLUMNS, type BriefRow, newBriefState, type Procedures } from './briefState.ts';
import { Mismatch, writeEvents, writeNewRuns, writeRevs } from './commitBatch.ts';

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
  /** The versions of the routines a document uses, as they are now. */
  pinsFor: PinsFor;
  /** First steps that were to be taken on and were not committed. */
  onTakenBack: (service: string | null) => void;
}

export type PinsFor = (sql: Sql, document: ProcedureDocument) => Promise<{ procedure_id: string; version: number }[]>;

/** The priority of what a person wants begun now: neither gaps nor what is in work keeps it waiting. */
export const NOW = 0;

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
 * no closer than 'take' spaces them; what a person wants begun now is let in in any case. What begins takes the newest
 * version of the procedure. The pipeline's row is locked, so the count holds with any number of processes; the
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
      const first = await waiting(sql, pipeline, 'b.priority = ?', NOW, MOST_AT_ONCE);
      const others = room > 0 ? await waiting(sql, pipeline, 'b.priority > ?', NOW, Math.min(room, MOST_AT_ONCE)) : [];
      const briefs = [...first, ...others];
      if (briefs.length === 0) return none;
      await takeNewest(sql, ports, row, briefs);
      for (const brief of briefs) {
        const state = await newBriefState(sql, procedures, brief);
        changes.push(changeOf(state, [], { ids: ground.ids, serviceFor, handoff }));
      }
      await writeRevs(sql, changes, now);
      await writeNewRuns(sql, changes, holder);
      await writeEvents(sql, changes, ground);
      if (apart > 0 && others.length > 0)
        await sql.run('UPDATE pipeline SET admitted_desk = ? WHERE id = ?', [now, pipeline]);
      return {
        changes,
        more: first.length === MOST_AT_ONCE || (others.length === MOST_AT_ONCE && room > MOST_AT_ONCE),
      };
    });
  } catch (error) {
    takeBack();
    // Somebody changed one of the briefs meanwhile, as by setting it aside: they are looked at again.
    if (error instanceof Mismatch) return { changes: [], more: true };
    throw error;
  }
}

function waiting(sql: Sql, pipeline: string, which: string, priority: number, most: number): Promise<BriefRow[]> {
  return sql.rows<BriefRow>(
    `SELECT ${BRIEF_COLUMNS} WHERE b.pipeline = ? AND b.trial = 0 AND b.standing = 'waiting' AND ${which} ORDER BY b.priority, b.id LIMIT ?`,
    [pipeline, priority, most],
  );
}

/** Briefs that were taken under an older version begin with the newest, and with the routines as they are now. */
async function takeNewest(
  sql: Sql,
  { procedures, pinsFor }: Pick<AdmissionPorts, 'procedures' | 'pinsFor'>,
  { procedure_id, version }: PipelineRow,
  briefs: readonly BriefRow[],
): Promise<void> {
  const older = briefs.filter((brief) => brief.version !== version);
  if (older.length === 0) return;
  const { document } = await procedures.get(sql, procedure_id, version);
  const pins = await pinsFor(sql, document);
  await sql.run('DELETE FROM brief_pin WHERE brief IN (?)', [older.map(({ id }) => id)]);
  await sql.run('INSERT INTO brief_pin (brief, procedure_id, version, main) VALUES ?', [
    older.flatMap(({ id }) => [
      [id, procedure_id, version, 1],
      ...pins.map((pin) => [id, pin.procedure_id, pin.version, 0]),
    ]),
  ]);
  // Inputs the newer version asks for and nobody gave are what stands there otherwise.
  const otherwise = Object.fromEntries((document.inputs ?? []).map((input) => [input.name, input.otherwise ?? '']));
  for (const brief of older) {
    const fields = { ...otherwise, ...brief.fields };
    if (Object.keys(fields).length > Object.keys(brief.fields).length)
      await sql.run('UPDATE brief SET fields = ? WHERE id = ?', [JSON.stringify(fields), brief.id]);
    brief.fields = fields;
    brief.version = version;
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
