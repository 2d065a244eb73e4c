import { BEGUN, lastRound, OPEN_BRIEFS, OPEN_RUNS, plan, stepIdOf } from '@grivo/core';
import { NOW } from '../../engine/admission.ts';
import { type BriefState, loadBriefs, OPENS_AS_IT_WAS, type Procedures } from '../../engine/briefState.ts';
import { laneOf, type ServiceFor } from '../../engine/lane.ts';
import { briefMoves, runMoves } from '../../engine/moves.ts';
import { stopRuns } from '../../engine/stop.ts';
import type { Ground } from '../../ground/ground.ts';
import type { Sql } from '../../ground/store/database.ts';
import { tellChange } from '../../ground/store/event.ts';
import { bringBackWith, setAsideWith } from '../articles/facts.ts';
import { firstChange, pinRoutines } from './newer.ts';

const OPEN = new Set<string>(OPEN_RUNS);

/**
 * Lets a brief go on by the document it is pinned to now: open runs that no longer fit are given up, and what comes next
 * is made ready. With `from`, everything from that step on is made anew in a new round; what has the same input as before
 * is taken over without being paid again. `changed` says that the document changed there and the step itself is to be asked
 * nothing anew that was answered already.
 * @returns lanes with new work
 */
export async function goOn(
  sql: Sql,
  ground: Ground,
  procedures: Procedures,
  brief: string,
  serviceFor: ServiceFor,
  from: string | null,
  changed = false,
): Promise<Set<string>> {
  await sql.rows('SELECT id FROM brief WHERE id = ? FOR UPDATE', [brief]);
  const state = (await loadBriefs(sql, procedures, [brief])).get(brief);
  if (!state) return new Set();
  const runs = state.runs.filter((run) => run.state !== 'cancelled');
  const known = runs.some((run) => run.path === from);
  // A step put in between is what comes next; all that stands after it is to follow it.
  const opened = known || (changed && plan(state.nodes, runs).create.some(({ path }) => path === from));
  const fresh =
    from !== null && opened
      ? [{ path: from, round: lastRound(state.runs) + 1, opens: true, ...(changed ? { keepsDraw: true } : {}) }]
      : [];
  const seen = [...runs, ...fresh.map((run) => ({ ...run, state: 'ready' as const, outcome: null }))];
  const next = plan(state.nodes, seen);
  await cancel(
    sql,
    next.cancel.flatMap((key) => idsAt(state, key)),
  );
  await forget(sql, orphans(state));
  const lanes = new Set<string>();
  const rows = [
    ...fresh.map((run) => ({ ...run, node: state.steps.get(stepIdOf(run.path)) })),
    ...next.create.map(({ node, ...run }) => ({ ...run, keepsDraw: false, node: state.steps.get(node.id) })),
  ].map(({ path, round, opens, keepsDraw, node }) => {
    const kind = node?.kind ?? 'check';
    const lane = laneOf(serviceFor(kind, node, state.document), state.priority);
    lanes.add(lane);
    return [ground.ids(), brief, path, round, opens ? (keepsDraw ? OPENS_AS_IT_WAS : 1) : 0, kind, 'ready', lane, lane];
  });
  if (rows.length > 0)
    await sql.run('INSERT INTO step_run (id, brief, path, round, opens, kind, state, lane, home_lane) VALUES ?', [
      rows,
    ]);
  const stillOpen = rows.length > 0 || runs.some((run) => OPEN.has(run.state) && !orphans(state).includes(run.id));
  const { set, from: fits } = briefMoves[stillOpen ? 'work' : 'end'];
  await sql.run(`UPDATE brief SET ${set}, ended_desk = ? WHERE id = ? AND ${fits}`, [
    stillOpen ? null : ground.desk.now(),
    brief,
  ]);
  await tellChange(sql, ground, 'brief', brief);
  return lanes;
}

/** Runs that never ended of steps the document no longer has: when the step comes back, it begins afresh. */
function orphans(state: BriefState): string[] {
  return state.runs.filter((run) => OPEN.has(run.state) && !state.steps.has(stepIdOf(run.path))).map((run) => run.id);
}

function idsAt(state: BriefState, key: { path: string; round: number }): string[] {
  return state.runs.filter((run) => run.path === key.path && run.round === key.round).map((run) => run.id);
}

async function forget(sql: Sql, ids: readonly string[]): Promise<void> {
  if (ids.length === 0) return;
  await sql.run('DELETE FROM attempt WHERE step_run IN (?)', [ids]);
  await sql.run('DELETE FROM output WHERE step_run IN (?)', [ids]);
  await sql.run('DELETE FROM step_run WHERE id IN (?)', [ids]);
}

async function cancel(sql: Sql, ids: readonly string[]): Promise<void> {
  if (ids.length === 0) return;
  await sql.run(`UPDATE step_run SET ${runMoves.cancel.set} WHERE id IN (?) AND ${runMoves.cancel.from}`, [ids]);
}

/** Ends a brief on purpose: whatever is open of it is given up, and its article with it. */
export async function setAside(ground: Ground, brief: string): Promise<boolean> {
  return ground.db.transaction(async (sql) => {
    const ended = await sql.run(
      `UPDATE brief SET ${briefMoves['set aside'].set}, ended_desk = ? WHERE id = ? AND ${briefMoves['set aside'].from}`,
      [ground.desk.now(), brief],
    );
    if (ended === 0) return false;
    await sql.run(
      `UPDATE step_run SET ${runMoves.cancel.set}, incident = NULL WHERE brief = ? AND ${runMoves.cancel.from}`,
      [brief],
    );
    await setAsideWith(sql, brief);
    await tellChange(sql, ground, 'brief', brief);
    return true;
  });
}

/**
 * Stops a brief where it stands, until a person lets it go on.
 * @param person who stopped it, by name
 */
export async function stopBrief(ground: Ground, brief: string, person: string): Promise<boolean> {
  return ground.db.transaction(async (sql) => {
    const [row] = await sql.rows<{ standing: string }>('SELECT standing FROM brief WHERE id = ? FOR UPDATE', [brief]);
    if (row?.standing === 'waiting') {
      await sql.run(`UPDATE brief SET ${briefMoves.stop.set} WHERE id = ? AND ${briefMoves.stop.from}`, [brief]);
      await tellChange(sql, ground, 'brief', brief);
      return true;
    }
    return stopRuns(sql, ground, brief, { code: 'stopped-by-hand', person });
  });
}

/** Says of a brief that a step set aside that it may stay so: it is not shown as waiting for anybody any more. */
export async function leaveAside(ground: Ground, brief: string): Promise<boolean> {
  return (
    (await ground.db.run("UPDATE brief SET seen = 1 WHERE id = ? AND standing = 'set aside' AND seen = 0", [brief])) > 0
  );
}

/**
 * Brings back a brief that was set aside: by a judgement or a check, which a person overrules by it, or by a person. It goes
 * on where it was ended; what was done stays done.
 * @returns lanes with new work, null when it is not set aside
 */
export async function bringBack(
  ground: Ground,
  procedures: Procedures,
  brief: string,
  serviceFor: ServiceFor,
): Promise<Set<string> | null> {
  return ground.db.transaction(async (sql) => {
    const [row] = await sql.rows<{ standing: string }>('SELECT standing FROM brief WHERE id = ? FOR UPDATE', [brief]);
    if (row?.standing !== 'set aside') return null;
    await sql.run('UPDATE brief SET seen = 0 WHERE id = ?', [brief]);
    await bringBackWith(sql, brief);
    const runs = await sql.rows<{
      id: string;
      path: string;
      round: number;
      state: string;
      outcome: { kind: string } | null;
    }>('SELECT id, path, round, state, outcome FROM step_run WHERE brief = ? ORDER BY id', [brief]);
    if (runs.length === 0) {
      const { set, from } = briefMoves['wait again'];
      await sql.run(`UPDATE brief SET ${set}, ended_desk = NULL WHERE id = ? AND ${from}`, [brief]);
      return new Set();
    }
    const judged = runs.findLast(({ state, outcome }) => state === 'done' && outcome?.kind === 'set aside');
    if (judged) await sql.run('UPDATE step_run SET outcome = \'{"kind":"done"}\' WHERE id = ?', [judged.id]);
    // What was given up when it was set aside begins afresh, in whatever round it stood; what a later round took the place
    // of stays as it was.
    const newest = new Map(runs.map((run) => [run.path, run]));
    for (const run of runs) if (run.round > newest.get(run.path)!.round) newest.set(run.path, run);
    const given = runs.filter(({ state, path }) => state === 'cancelled' && newest.get(path)!.state === 'cancelled');
    await forget(
      sql,
      given.map(({ id }) => id),
    );
    return goOn(sql, ground, procedures, brief, serviceFor, null);
  });
}

/**
 * Lets a brief that has begun go on by the newest version of its pipeline's procedure, from the first step that reads
 * differently; what stands above it is kept. One that waits takes the newest when it begins.
 * @returns lanes with new work, null when it is on the newest or has ended
 */
export async function bringToNewest(
  ground: Ground,
  procedures: Procedures,
  brief: string,
  serviceFor: ServiceFor,
): Promise<Set<string> | null> {
  return ground.db.transaction(async (sql) => {
    const [row] = await sql.rows<{ standing: string; procedure_id: string; pinned: number; newest: number }>(
      `SELECT b.standing, p.procedure_id, p.version AS pinned, l.version AS newest FROM brief b JOIN brief_pin p ON p.brief = b.id AND p.main = 1
       JOIN pipeline l ON l.id = b.pipeline WHERE b.id = ? AND b.trial = 0 FOR UPDATE`,
      [brief],
    );
    if (!row || row.pinned === row.newest || !(BEGUN as readonly string[]).includes(row.standing)) return null;
    const [before, after] = await Promise.all(
      [row.pinned, row.newest].map((version) => procedures.get(sql, row.procedure_id, version)),
    );
    await sql.run('UPDATE brief_pin SET version = ? WHERE brief = ? AND main = 1', [row.newest, brief]);
    await sql.run('DELETE FROM brief_pin WHERE brief = ? AND main = 0', [brief]);
    await pinRoutines(sql, brief, after!.document);
    return goOn(
      sql,
      ground,
      procedures,
      brief,
      serviceFor,
      firstChange(before!.document.steps, after!.document.steps),
      true,
    );
  });
}

/** Lets a waiting brief begin now, whatever is in work and however short ago another began. */
export async function beginNow(ground: Ground, brief: string): Promise<boolean> {
  const done = await ground.db.run(
    "UPDATE brief SET priority = ?, rev = rev + 1 WHERE id = ? AND standing = 'waiting' AND trial = 0",
    [NOW, brief],
  );
  return done > 0;
}

/** Lets a brief that was stopped before it began wait for its turn again. */
export async function letWaitAgain(ground: Ground, brief: string): Promise<boolean> {
  const done = await ground.db.run(
    `UPDATE brief b SET ${briefMoves['wait again'].set} WHERE id = ? AND standing = 'stopped' AND NOT EXISTS (SELECT 1 FROM step_run r WHERE r.brief = b.id)`,
    [brief],
  );
  return done > 0;
}

/** The priority of what a person has put ahead: before every pipeline's own. */
const AHEAD = 1;

/** Puts a brief ahead of all others: it is let in first, and its steps are claimed first. */
export async function putAhead(ground: Ground, brief: string): Promise<boolean> {
  return ground.db.transaction(async (sql) => {
    const moved = await sql.run('UPDATE brief SET priority = ?, rev = rev + 1 WHERE id = ? AND standing IN (?)', [
      AHEAD,
      brief,
      OPEN_BRIEFS,
    ]);
    if (moved === 0) return false;
    await sql.run(
      `UPDATE step_run SET home_lane = CONCAT(SUBSTRING_INDEX(home_lane, ':', 1), ':', ?), lane = IF(lane IS NULL, NULL, home_lane)
       WHERE brief = ? AND state IN (?)`,
      [AHEAD, brief, OPEN_RUNS],
    );
    await tellChange(sql, ground, 'brief', brief);
    return true;
  });
}
