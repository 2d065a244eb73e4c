import { createHash } from 'node:crypto';
import { innerSteps, type ProcedureDocument, type Step } from '@grivo/core';
import type { Procedures } from '../../engine/briefState.ts';
import type { ServiceFor } from '../../engine/lane.ts';
import type { Ground } from '../../ground/ground.ts';
import type { Sql } from '../../ground/store/database.ts';
import { firstChange, pinRoutines } from '../briefs/newer.ts';
import { goOn } from '../briefs/rounds.ts';

export interface TrialRequest {
  pipeline: string;
  document: ProcedureDocument;
  subject: string;
  fields: Record<string, unknown>;
  items: readonly string[];
  /** Last step to run; null runs to the end. */
  until: string | null;
}

/**
 * Begins a trial: the same engine on a brief marked as one, pinned to a draft of the procedure that nobody needs to have
 * saved. It publishes nothing, and lists, slots and likeness leave it out.
 */
export async function startTrial(
  ground: Ground,
  procedures: Procedures,
  trial: TrialRequest,
  serviceFor: ServiceFor,
): Promise<{ brief: string; lanes: Set<string> }> {
  const brief = ground.ids();
  const draft = ground.ids();
  const lanes = await ground.db.transaction(async (sql) => {
    await addDraft(sql, draft, 1, upTo(trial.document, trial.until));
    await sql.run(
      "INSERT INTO brief (id, pipeline, trial, standing, seed, subject, fields, priority, made_desk) VALUES (?, ?, 1, 'in work', ?, ?, ?, 0, ?)",
      [brief, trial.pipeline, brief, trial.subject, JSON.stringify(trial.fields), ground.desk.now()],
    );
    if (trial.items.length > 0)
      await sql.run('INSERT INTO brief_item (brief, item) VALUES ?', [trial.items.map((item) => [brief, item])]);
    await sql.run('INSERT INTO brief_pin (brief, procedure_id, version) VALUES (?, ?, 1)', [brief, draft]);
    await pinRoutines(sql, brief, trial.document);
    return goOn(sql, ground, procedures, brief, serviceFor, null);
  });
  return { brief, lanes };
}

/**
 * Goes on with a trial by a changed draft. From the first step that reads differently on, everything is made anew; what
 * stands above is kept as it is.
 * @returns null when there is no such trial
 */
export async function goOnWithTrial(
  ground: Ground,
  procedures: Procedures,
  brief: string,
  document: ProcedureDocument,
  { until, from }: { until: string | null; from: string | null },
  serviceFor: ServiceFor,
): Promise<Set<string> | null> {
  return ground.db.transaction(async (sql) => {
    const [row] = await sql.rows<{ procedure_id: string; version: number }>(
      'SELECT p.procedure_id, p.version FROM brief b JOIN brief_pin p ON p.brief = b.id AND p.main = 1 WHERE b.id = ? AND b.trial = 1 FOR UPDATE',
      [brief],
    );
    if (!row) return null;
    const former = await procedures.get(sql, row.procedure_id, row.version);
    const shown = upTo(document, until);
    await addDraft(sql, row.procedure_id, row.version + 1, shown);
    await sql.run('UPDATE brief_pin SET version = ? WHERE brief = ? AND main = 1', [row.version + 1, brief]);
    await sql.run('DELETE FROM brief_pin WHERE brief = ? AND main = 0', [brief]);
    await pinRoutines(sql, brief, document);
    const again = from ?? firstChange(former.document.steps, shown.steps);
    return goOn(sql, ground, procedures, brief, serviceFor, again, from === null);
  });
}

/** The document as far as a step, wherever it stands: blocks around it are cut after it. */
export function upTo(document: ProcedureDocument, until: string | null): ProcedureDocument {
  if (until === null) return document;
  const cut = cutAfter(document.steps, until);
  return cut ? { ...document, steps: cut } : document;
}

function cutAfter(steps: readonly Step[], until: string): Step[] | null {
  for (const [at, step] of steps.entries()) {
    if (step.id === until) return steps.slice(0, at + 1);
    for (const { under, steps: inner } of innerSteps(step)) {
      const cut = cutAfter(inner, until);
      if (cut) return [...steps.slice(0, at), { ...step, [under]: cut }];
    }
  }
  return null;
}

async function addDraft(sql: Sql, id: string, n: number, document: ProcedureDocument): Promise<void> {
  const text = JSON.stringify(document);
  await sql.run('INSERT INTO procedure_version (procedure_id, n, document, digest) VALUES (?)', [
    [id, n, text, createHash('sha256').update(text).digest('hex')],
  ]);
}
