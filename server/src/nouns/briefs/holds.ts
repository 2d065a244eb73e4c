import { lineOf, locate, type Outcome, type Step, stepIdOf } from '@grivo/core';
import { z } from 'zod';
import { changeOf } from '../../engine/briefChange.ts';
import { type BriefState, loadBriefs, type Procedures, type RunState } from '../../engine/briefState.ts';
import { writeCancelled, writeEvents, writeNewRuns, writeRevs } from '../../engine/commitBatch.ts';
import { endingOf } from '../../engine/ending.ts';
import type { ServiceFor } from '../../engine/lane.ts';
import { runMoves } from '../../engine/moves.ts';
import type { Fields } from '../../engine/performer.ts';
import type { Ground } from '../../ground/ground.ts';
import type { Sql } from '../../ground/store/database.ts';
import type { Tools } from '../../ports/tools.ts';
import { NotesField, OutlineField } from '../articles/fields.ts';
import { ofLabel } from '../labels/repository.ts';
import { articleAt, type HeldState, rewritten } from './heldArticle.ts';
import { goOn, setAside } from './rounds.ts';

export interface Held {
  run: string;
  brief: string;
  pipeline: string;
  pipelineName: string;
  subject: string;
  kind: string;
  path: string;
  proposed: Fields;
  heldAt: Date;
}

/** Everything that waits for a person, the longest first. */
export async function heldRuns(sql: Sql, brief: string | null = null, label?: string): Promise<Held[]> {
  return sql.rows<Held>(
    `SELECT r.id AS run, b.id AS brief, b.pipeline, p.name AS pipelineName, b.subject, r.kind, r.path, o.proposed, COALESCE(o.held_at, r.made_at) AS heldAt
     FROM brief b JOIN step_run r ON r.brief = b.id AND r.state = 'held' JOIN pipeline p ON p.id = b.pipeline LEFT JOIN output o ON o.step_run = r.id
     WHERE b.standing IN ('held', 'in work', 'stopped') AND b.trial = 0${brief ? ' AND b.id = ?' : ''}${label ? ` AND ${ofLabel({ pipeline: 'b.pipeline' })}` : ''} ORDER BY b.id, r.id LIMIT 500`,
    [...(brief ? [brief] : []), ...(label ? [label] : [])],
  );
}

/** What a person says to a held step. */
export type Decision =
  | { decide: 'pass'; change: Record<string, unknown> }
  | { decide: 'set aside' }
  | { decide: 'send back'; note: string; to: string | null };

export type Decided =
  | { kind: 'decided'; lanes: Set<string> }
  /** Somebody else was first, or it is held no more. */
  | { kind: 'gone' }
  | { kind: 'wrong'; place: string; problem: string; mend?: string };

/** What may be changed of what a step proposes, with the shape it must keep. */
const CHANGEABLE: Record<string, z.ZodType> = {
  title: z.string().trim().min(1, 'a title').max(300),
  outline: OutlineField.min(1, 'at least one section'),
  notes: NotesField,
  judgement: z.object({ score: z.number().min(0).max(10), kind: z.string(), reason: z.string() }),
};

/**
 * A person's word on a held step, by compare-and-set: it counts once, and only while the step is held. Passing makes what
 * the step proposed, with the person's changes, what the steps below see. Sending back makes the work anew, with the note
 * in front of the writer.
 */
export async function decide(
  ports: Pick<Tools, 'ground' | 'reader'>,
  procedures: Procedures,
  { brief, run, person, decision }: { brief: string; run: string; person: string; decision: Decision },
  serviceFor: ServiceFor,
): Promise<Decided> {
  const { ground } = ports;
  const first = await stateHeld(ground.db, procedures, brief, run);
  if (!first) return { kind: 'gone' };
  if (decision.decide === 'set aside' && lineOf(first.state.nodes, first.held.path) === '')
    return (await setAside(ground, brief)) ? { kind: 'decided', lanes: new Set() } : { kind: 'gone' };
  const proposed = await proposedBy(ground.db, run);
  const { text, ...change } = decision.decide === 'pass' ? decision.change : {};
  const changed = decision.decide === 'pass' ? changedFields(first.state, proposed, change) : null;
  if (changed && !changed.ok) return { kind: 'wrong', place: changed.place, problem: changed.problem };
  // A revision is written before and counts only once the article points at it.
  const own = changed ? await rewritten(ports, first, { fields: changed.fields, proposed, text, person }) : null;
  if (own && !own.ok) return { kind: 'wrong', place: own.place, problem: own.problem, mend: own.mend };
  return ground.db.transaction(async (sql): Promise<Decided> => {
    await sql.rows('SELECT id FROM brief WHERE id = ? FOR UPDATE', [brief]);
    const now = await stateHeld(sql, procedures, brief, run);
    if (!now) return { kind: 'gone' };
    if (decision.decide === 'send back')
      return { kind: 'decided', lanes: await sendBack(sql, ground, procedures, now, decision, serviceFor) };
    const outcome: Outcome =
      decision.decide === 'set aside' ? { kind: 'set aside' } : (now.held.outcome ?? { kind: 'done' });
    const fields = own?.fields ?? proposed;
    const ended = await sql.run(
      `UPDATE step_run SET ${runMoves.pass.set}, outcome = ? WHERE id = ? AND ${runMoves.pass.from}`,
      [JSON.stringify(outcome), run],
    );
    if (ended === 0) return { kind: 'gone' };
    await sql.run('UPDATE output SET decided = ?, by_person = ? WHERE step_run = ?', [
      JSON.stringify(fields),
      person,
      run,
    ]);
    for (const { text, parameters } of own?.writes ?? []) await sql.run(text, parameters);
    const inputDigest = now.state.outputs.get(run)?.inputDigest ?? null;
    const ending = endingOf(now.state, now.held, { outcome, fields, inputDigest });
    const change = changeOf(now.state, [ending], { ids: ground.ids, serviceFor, handoff: () => false });
    await writeRevs(sql, [change], ground.desk.now());
    await writeCancelled(sql, [change]);
    await writeNewRuns(sql, [change], '');
    await writeEvents(sql, [change], ground);
    return { kind: 'decided', lanes: new Set(change.fresh.map(({ lane }) => lane)) };
  });
}

/** The article a held step speaks of, as a text that can be edited; null when there is none, 'gone' when it is held no more. */
export async function heldText(sql: Sql, procedures: Procedures, brief: string, run: string) {
  const now = await stateHeld(sql, procedures, brief, run);
  return now ? articleAt(sql, now, await proposedBy(sql, run)) : 'gone';
}

async function stateHeld(sql: Sql, procedures: Procedures, brief: string, run: string): Promise<HeldState | null> {
  const state = (await loadBriefs(sql, procedures, [brief])).get(brief);
  const held = state?.runs.find((one) => one.id === run && one.state === 'held');
  return state && held ? { state, held } : null;
}

async function proposedBy(sql: Sql, run: string): Promise<Fields> {
  const [row] = await sql.rows<{ proposed: Fields }>('SELECT proposed FROM output WHERE step_run = ?', [run]);
  return row?.proposed ?? {};
}

type Changed = { ok: true; fields: Fields } | { ok: false; place: string; problem: string };

function changedFields(state: BriefState, proposed: Fields, change: Record<string, unknown>): Changed {
  const fields: Record<string, unknown> = { ...proposed };
  for (const [name, value] of Object.entries(change)) {
    const free = [...state.steps.values()].some((step) => keptBy(step) === name);
    const shape = CHANGEABLE[name] ?? (free ? z.json() : null);
    if (!(name in proposed) || !shape)
      return { ok: false, place: name, problem: `the step proposes no ‘${name}’ that can be changed` };
    const read = shape.safeParse(value);
    if (!read.success) {
      const issue = read.error.issues[0];
      return { ok: false, place: [name, ...(issue?.path ?? [])].join('.'), problem: issue?.message ?? 'does not fit' };
    }
    fields[name] = read.data;
  }
  return { ok: true, fields };
}

/** The name of a field of one's own that a step keeps. */
function keptBy(step: Step): string | null {
  return step.kind === 'answer' || step.kind === 'work out' || step.kind === 'fetch' ? step.as : null;
}

/** Makes a step's work anew with a note. A bare hold is sent back to the nearest step before it that asks the writer. */
async function sendBack(
  sql: Sql,
  ground: Ground,
  procedures: Procedures,
  { state, held }: HeldState,
  { note, to }: { note: string; to: string | null },
  serviceFor: ServiceFor,
): Promise<Set<string>> {
  const path = to ?? sentBackTo(state, held);
  const notes = { ...(state.fields['sentBack'] as Record<string, string> | undefined), [path]: note };
  await sql.run('UPDATE brief SET fields = ? WHERE id = ?', [
    JSON.stringify({ ...state.fields, sentBack: notes }),
    state.id,
  ]);
  return goOn(sql, ground, procedures, state.id, serviceFor, path);
}

function sentBackTo(state: BriefState, held: RunState): string {
  const own = state.steps.get(stepIdOf(held.path));
  if (own?.kind !== 'hold' && own?.kind !== 'check') return held.path;
  const place = locate(state.nodes, held.path)?.at(-1);
  const before = place?.sequence
    .slice(0, place.at)
    .findLast((node) => node.type === 'step' && !node.off && ASKS.has(state.steps.get(node.id)?.kind ?? ''));
  return before ? [...held.path.split('/').slice(0, -1), before.id].join('/') : held.path;
}

/** Kinds whose work a note can change. */
const ASKS: ReadonlySet<string> = new Set(['write', 'outline', 'notes', 'title', 'illustrate', 'translate', 'answer']);
