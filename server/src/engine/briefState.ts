import { createHash } from 'node:crypto';
import {
  type PlanNode,
  type PlanRun,
  ProcedureDocument,
  planNodes,
  type Step,
  type StepState,
  visibleRuns,
} from '@grivo/core';
import type { Sql } from '../store/database.ts';
import type { Fields } from './performer.ts';

export interface RunState extends PlanRun {
  id: string;
  kind: string;
  attempts: number;
  /** Passing failures in a row. */
  tries: number;
  forSlot: boolean;
  startedAt: Date | null;
}

/** Everything a worker knows of a brief: valid as long as `rev` is the brief's. */
export interface BriefState {
  id: string;
  pipeline: string;
  trial: boolean;
  rev: number;
  standing: string;
  seed: string;
  subject: string;
  fields: Fields;
  priority: number;
  document: ProcedureDocument;
  nodes: PlanNode[];
  steps: Map<string, Step>;
  runs: RunState[];
  /** What done runs gave, by run id. */
  outputs: Map<string, { fields: Fields; inputDigest: string | null }>;
}

export interface PinnedProcedure {
  document: ProcedureDocument;
  nodes: PlanNode[];
  steps: Map<string, Step>;
}

/** Reads pinned procedures; versions never change, so they are kept. */
export class Procedures {
  private readonly kept = new Map<string, PinnedProcedure>();

  async get(sql: Sql, procedure: string, version: number): Promise<PinnedProcedure> {
    const key = `${procedure}/${version}`;
    const known = this.kept.get(key);
    if (known) return known;
    const [row] = await sql.rows<{ document: unknown }>(
      'SELECT document FROM procedure_version WHERE procedure_id = ? AND n = ?',
      [procedure, version],
    );
    if (!row) throw new Error(`procedure ${procedure} has no version ${version}`);
    const document = ProcedureDocument.parse(row.document);
    const pinned = {
      document,
      nodes: planNodes(document),
      steps: new Map(document.steps.map((step) => [step.id, step])),
    };
    if (this.kept.size > 500) this.kept.clear();
    this.kept.set(key, pinned);
    return pinned;
  }
}

/** The columns of a `BriefRow`, with their tables. */
export const BRIEF_COLUMNS =
  'b.id, b.pipeline, b.trial, b.rev, b.standing, b.seed, b.subject, b.fields, b.priority, p.procedure_id, p.version FROM brief b JOIN brief_pin p ON p.brief = b.id';

export interface BriefRow {
  id: string;
  pipeline: string;
  trial: number;
  rev: number;
  standing: string;
  seed: string;
  subject: string;
  fields: Fields;
  priority: number;
  procedure_id: string;
  version: number;
}

interface OutputRow {
  step_run: string;
  proposed: Fields;
  decided: Fields | null;
  input_digest: string | null;
}

interface RunRow {
  id: string;
  brief: string;
  path: string;
  round: number;
  opens: number;
  kind: string;
  state: StepState;
  outcome: PlanRun['outcome'];
  attempts: number;
  tries: number;
  for_slot: number;
  started_at: Date | null;
}

/** Reads briefs with their runs and outputs, three statements however many there are. */
export async function loadBriefs(
  sql: Sql,
  procedures: Procedures,
  ids: readonly string[],
): Promise<Map<string, BriefState>> {
  const out = new Map<string, BriefState>();
  if (ids.length === 0) return out;
  const briefs = await sql.rows<BriefRow>(`SELECT ${BRIEF_COLUMNS} WHERE b.id IN (?)`, [ids]);
  for (const row of briefs) out.set(row.id, await newBriefState(sql, procedures, row));
  // Named, because for many briefs the optimizer prefers to read the whole table, which grows without end.
  const runs = await sql.rows<RunRow>(
    `SELECT id, brief, path, round, opens, kind, state, outcome, attempts, tries, for_slot, started_at FROM step_run FORCE INDEX (step_run_path) WHERE brief IN (?)`,
    [ids],
  );
  runs.sort((a, b) => (a.id < b.id ? -1 : 1));
  const owners = new Map<string, BriefState>();
  for (const row of runs) {
    const brief = out.get(row.brief);
    brief?.runs.push(runOf(row));
    if (brief && row.state === 'done') owners.set(row.id, brief);
  }
  if (owners.size === 0) return out;
  const outputs = await sql.rows<OutputRow>(
    'SELECT step_run, proposed, decided, input_digest FROM output WHERE step_run IN (?)',
    [[...owners.keys()]],
  );
  for (const row of outputs)
    owners
      .get(row.step_run)
      ?.outputs.set(row.step_run, { fields: row.decided ?? row.proposed, inputDigest: row.input_digest });
  return out;
}

/** What is known of a brief before its runs are read, or before it has any. */
export async function newBriefState(sql: Sql, procedures: Procedures, row: BriefRow): Promise<BriefState> {
  const { procedure_id, version, ...brief } = row;
  const pinned = await procedures.get(sql, procedure_id, version);
  return { ...brief, trial: row.trial === 1, ...pinned, runs: [], outputs: new Map() };
}

function runOf(row: RunRow): RunState {
  return {
    id: row.id,
    path: row.path,
    round: row.round,
    opens: row.opens === 1,
    kind: row.kind,
    state: row.state,
    outcome: row.outcome ?? (row.state === 'done' ? { kind: 'done' } : null),
    attempts: row.attempts,
    tries: row.tries,
    forSlot: row.for_slot === 1,
    startedAt: row.started_at,
  };
}

/** The fields a step sees: the brief's own, overlaid by what the steps before gave. */
export function fieldsAt(brief: BriefState, path: string): Fields {
  const merged: Record<string, unknown> = { ...brief.fields, subject: brief.subject };
  for (const visible of visibleRuns(brief.nodes, brief.runs, path)) {
    const run = brief.runs.find((r) => r.path === visible.path && r.round === visible.round);
    const output = run ? brief.outputs.get(run.id) : undefined;
    if (!output) continue;
    if (visible.under === null) Object.assign(merged, output.fields);
    else merged[visible.under] = { ...((merged[visible.under] as Fields | undefined) ?? {}), ...output.fields };
  }
  return merged;
}

/** Digest of everything a step's result may depend on; the same digest in a later round means the result still holds. */
export function inputDigest(step: Step, fields: Fields, draw: number): string {
  return createHash('sha256')
    .update(JSON.stringify([step, fields, draw]))
    .digest('hex');
}
