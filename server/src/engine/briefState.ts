import { hash } from 'node:crypto';
import {
  type BriefStanding,
  innerSteps,
  type PlanNode,
  type PlanRun,
  ProcedureDocument,
  parsePath,
  planNodes,
  type Routines,
  routinesUsed,
  runSteps,
  type Step,
  type StepState,
  visibleRuns,
} from '@grivo/core';
import type { Sql } from '../ground/store/database.ts';
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

/** A run as the planner wants it, not tried before. */
export function freshRun(
  id: string,
  { path, round, opens }: Pick<RunState, 'path' | 'round' | 'opens'>,
  kind: string,
  inHand: boolean,
): RunState {
  return {
    id,
    path,
    round,
    opens,
    kind,
    state: inHand ? 'running' : 'ready',
    outcome: null,
    attempts: inHand ? 1 : 0,
    tries: 0,
    forSlot: false,
    startedAt: null,
  };
}

/** Everything a worker knows of a brief: valid as long as `rev` is the brief's. */
export interface BriefState {
  id: string;
  pipeline: string;
  trial: boolean;
  rev: number;
  standing: BriefStanding;
  seed: string;
  subject: string;
  fields: Fields;
  priority: number;
  document: ProcedureDocument;
  nodes: PlanNode[];
  /** Every step by its id, those of routines among them. */
  steps: Map<string, Step>;
  routines?: Routines;
  /** Held after every step. */
  byHand: boolean;
  runs: RunState[];
  /** What done runs gave, by run id. */
  outputs: Map<string, { fields: Fields; inputDigest: string | null }>;
}

export interface PinnedProcedure {
  document: ProcedureDocument;
  /** Whether any routine is used. */
  uses: boolean;
  nodes: PlanNode[];
  /** Every step by its id, those of routines among them. */
  steps: Map<string, Step>;
  routines?: Routines;
}

/** Reads pinned procedures; versions never change, so they are kept. */
export class Procedures {
  private readonly kept = new Map<string, PinnedProcedure>();

  async get(sql: Sql, procedure: string, version: number): Promise<PinnedProcedure> {
    return this.keep(`${procedure}/${version}`, async () => {
      const document = await this.document(sql, procedure, version);
      const uses = routinesUsed(document).length > 0;
      return { document, uses, nodes: planNodes(document), steps: stepsById(runSteps(document)) };
    });
  }

  /** The procedure with the routines a brief is pinned to in place of the steps that use them. */
  async getWith(sql: Sql, procedure: string, version: number, pins: readonly RoutinePin[]): Promise<PinnedProcedure> {
    const key = [`${procedure}/${version}`, ...pins.map((pin) => `${pin.routine}:${pin.version}`).sort()].join(' ');
    return this.keep(key, async () => {
      const document = await this.document(sql, procedure, version);
      const routines = new Map<string, ProcedureDocument>();
      for (const pin of pins) routines.set(pin.routine, await this.document(sql, pin.procedure_id, pin.version));
      return {
        document,
        uses: true,
        nodes: planNodes(document, routines),
        steps: stepsById(runSteps(document, routines)),
        routines,
      };
    });
  }

  private async document(sql: Sql, procedure: string, version: number): Promise<ProcedureDocument> {
    const [row] = await sql.rows<{ document: unknown }>(
      'SELECT document FROM procedure_version WHERE procedure_id = ? AND n = ?',
      [procedure, version],
    );
    if (!row) throw new Error(`procedure ${procedure} has no version ${version}`);
    return ProcedureDocument.parse(row.document);
  }

  private async keep(key: string, make: () => Promise<PinnedProcedure>): Promise<PinnedProcedure> {
    const known = this.kept.get(key);
    if (known) return known;
    const made = await make();
    if (this.kept.size > 500) this.kept.clear();
    this.kept.set(key, made);
    return made;
  }
}

function stepsById(steps: readonly Step[]): Map<string, Step> {
  return new Map(steps.map((step) => [step.id, step]));
}

/** A routine as a brief is pinned to it. */
export interface RoutinePin {
  routine: string;
  procedure_id: string;
  version: number;
}

/** The columns of a `BriefRow`, with their tables. */
export const BRIEF_COLUMNS =
  'b.id, b.pipeline, b.trial, b.rev, b.standing, b.seed, b.subject, b.fields, b.priority, b.by_hand, p.procedure_id, p.version FROM brief b JOIN brief_pin p ON p.brief = b.id AND p.main = 1';

export interface BriefRow {
  id: string;
  pipeline: string;
  trial: number;
  rev: number;
  standing: BriefStanding;
  seed: string;
  subject: string;
  fields: Fields;
  priority: number;
  by_hand: number;
  procedure_id: string;
  version: number;
}

async function routinePins(sql: Sql, brief: string): Promise<RoutinePin[]> {
  return sql.rows<RoutinePin>(
    'SELECT r.id AS routine, p.procedure_id, p.version FROM brief_pin p JOIN routine r ON r.procedure_id = p.procedure_id WHERE p.brief = ? AND p.main = 0',
    [brief],
  );
}

interface OutputRow {
  step_run: string;
  proposed: Fields;
  decided: Fields | null;
  input_digest: string | null;
}

/** Kept in `opens` of a run that opens a round because the document changed: 1 draws anew, 2 does not. */
export const OPENS_AS_IT_WAS = 2;

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
    // Steps that come back later keep what they wait for as their output.
    if (brief && (row.state === 'done' || row.attempts > 1)) owners.set(row.id, brief);
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
  let pinned = await procedures.get(sql, row.procedure_id, row.version);
  if (pinned.uses)
    pinned = await procedures.getWith(sql, row.procedure_id, row.version, await routinePins(sql, row.id));
  const { document, nodes, steps, routines } = pinned;
  // Each by its name: spread, these were a tenth of a brief's time.
  const { id, pipeline, rev, standing, seed, subject, fields, priority } = row;
  return {
    id,
    pipeline,
    trial: row.trial === 1,
    rev,
    standing,
    seed,
    subject,
    fields,
    priority,
    document,
    nodes,
    steps,
    ...(routines ? { routines } : {}),
    byHand: row.by_hand === 1,
    runs: [],
    outputs: new Map(),
  };
}

function runOf(row: RunRow): RunState {
  return {
    id: row.id,
    path: row.path,
    round: row.round,
    opens: row.opens > 0,
    ...(row.opens === OPENS_AS_IT_WAS ? { keepsDraw: true } : {}),
    kind: row.kind,
    state: row.state,
    outcome: row.outcome ?? (row.state === 'done' ? { kind: 'done' } : null),
    attempts: row.attempts,
    tries: row.tries,
    forSlot: row.for_slot === 1,
    startedAt: row.started_at,
  };
}

/** The fields a step sees: the brief's own, overlaid by what the steps before gave, the value of its turn last. */
export function fieldsAt(brief: BriefState, path: string): Fields {
  const closed = routineAround(brief, path);
  const merged: Record<string, unknown> =
    closed === null ? { ...brief.fields, subject: brief.subject } : { ...outputAt(brief, closed)?.fields };
  const turns = new Map<string, Record<string, unknown>>();
  for (const visible of visibleRuns(brief.nodes, brief.runs, path)) {
    const run = brief.runs.find((r) => r.path === visible.path && r.round === visible.round);
    const output = run ? brief.outputs.get(run.id) : undefined;
    if (!output) continue;
    if (visible.under === null) Object.assign(merged, output.fields);
    else giveBack(brief, visible.path, visible.under, output.fields, merged, turns);
  }
  const segments = path.split('/');
  for (const [i, { id, turn }] of parsePath(path).entries()) {
    const step = brief.steps.get(id);
    if (turn === null || step?.kind !== 'for each') continue;
    const values = outputAt(brief, [...segments.slice(0, i), id].join('/'))?.fields['values'] as
      | Record<string, unknown>
      | undefined;
    if (values && turn in values) merged[step.as] = values[turn];
  }
  return merged;
}

/** What a finished block gives back: a branch a record, turns a list of records, a routine the fields it says it gives. */
function giveBack(
  brief: BriefState,
  path: string,
  under: string,
  fields: Fields,
  merged: Record<string, unknown>,
  turns: Map<string, Record<string, unknown>>,
): void {
  const step = brief.steps.get(under);
  if (step?.kind === 'use') {
    for (const name of brief.routines?.get(step.routine)?.outputs ?? [])
      if (name in fields) merged[name] = fields[name];
    return;
  }
  const name = step?.kind === 'meanwhile' || step?.kind === 'for each' ? step.name : under;
  if (step?.kind !== 'for each') {
    merged[name] = { ...((merged[name] as Fields | undefined) ?? {}), ...fields };
    return;
  }
  const key = parsePath(path).find(({ id, turn }) => id === under && turn !== null)?.turn ?? '';
  let record = turns.get(`${under} ${key}`);
  if (!record) {
    record = {};
    turns.set(`${under} ${key}`, record);
    merged[name] = [...((merged[name] as unknown[] | undefined) ?? []), record];
  }
  Object.assign(record, fields);
}

/** The path of the innermost routine around a step, null when none is. */
function routineAround(brief: BriefState, path: string): string | null {
  const segments = path.split('/');
  for (let i = segments.length - 2; i >= 0; i--)
    if (brief.steps.get(parsePath(segments[i]!)[0]!.id)?.kind === 'use') return segments.slice(0, i + 1).join('/');
  return null;
}

function outputAt(brief: BriefState, path: string): { fields: Fields } | undefined {
  const run = brief.runs.filter((r) => r.path === path && r.state === 'done').sort((a, b) => b.round - a.round)[0];
  return run ? brief.outputs.get(run.id) : undefined;
}

/** The text of a step's own part: steps belong to pinned versions, which never change, so it is made once. */
const texts = new WeakMap<Step, string>();

function ownText(step: Step): string {
  let text = texts.get(step);
  if (text === undefined) {
    // What stands inside a block is its own steps' concern.
    text = JSON.stringify({ ...step, ...Object.fromEntries(innerSteps(step).map(({ under }) => [under, null])) });
    texts.set(step, text);
  }
  return text;
}

/** Digest of everything a step's result may depend on; the same digest in a later round means the result still holds. */
export function inputDigest(step: Step, fields: Fields, draw: number): string {
  return hash('sha256', `[${ownText(step)},${JSON.stringify(fields)},${draw}]`);
}
