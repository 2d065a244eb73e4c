import type { Ground } from '../ground/ground.ts';
import type { Sql } from '../ground/store/database.ts';
import type { BriefChange } from './briefChange.ts';
import { laneOf } from './lane.ts';
import { checkedStanding, ENDS, runMoves } from './moves.ts';

/** Something in the batch is no longer as it was read; nothing was written. */
export class Mismatch extends Error {}

function must(matched: number, wanted: number): void {
  if (matched !== wanted) throw new Mismatch();
}

/**
 * Writes the changes of a batch of briefs. Every statement names holder and state and counts its rows.
 * @returns the batch's token: written with it, so that it tells afterwards whether the batch was committed
 * @throws {Mismatch} when something is no longer as it was read; the transaction is then to be rolled back
 */
export async function writeBatch(
  sql: Sql,
  changes: readonly BriefChange[],
  holder: string,
  ground: Ground,
): Promise<string> {
  await writeRevs(sql, changes, ground.desk.now());
  await writeEnds(sql, changes, holder);
  await writeAttempts(sql, changes, holder);
  await writeCancelled(sql, changes);
  await writeNewRuns(sql, changes, holder);
  await writeCarried(sql, changes);
  await writeOutputs(sql, changes, ground);
  for (const change of changes)
    for (const ending of [...change.endings, ...change.carried])
      for (const { text, parameters } of ending.writes) await sql.run(text, parameters);
  return writeEvents(sql, changes, ground);
}

/** Gives up the runs a plan leaves behind. */
export async function writeCancelled(sql: Sql, changes: readonly BriefChange[]): Promise<void> {
  const cancelled = changes.flatMap((change) => change.cancelled.map((run) => run.id));
  if (cancelled.length > 0) {
    must(
      await sql.run(`UPDATE step_run SET ${runMoves.cancel.set} WHERE id IN (?) AND ${runMoves.cancel.from}`, [
        cancelled,
      ]),
      cancelled.length,
    );
  }
}

/** The runs a plan makes: those handed to the holder already leased to it, the others in their lanes. */
export async function writeNewRuns(sql: Sql, changes: readonly BriefChange[], holder: string): Promise<void> {
  const fresh = changes.flatMap((change) =>
    change.fresh.map(({ run, handed, lane }) => [
      run.id,
      change.brief.id,
      run.path,
      run.round,
      run.opens ? 1 : 0,
      run.kind,
      run.state,
      handed ? null : lane,
      lane,
      handed ? holder : null,
      run.attempts,
    ]),
  );
  if (fresh.length > 0)
    await sql.run(
      'INSERT INTO step_run (id, brief, path, round, opens, kind, state, lane, home_lane, holder, attempts) VALUES ?',
      [fresh],
    );
}

/**
 * Hints of what to read again: a brief whose standing changed or that is tried out, and otherwise one for its pipeline,
 * however many of its briefs went a step further in this batch (a row for each was an eighth of a batch's time).
 */
export async function writeEvents(sql: Sql, changes: readonly BriefChange[], ground: Ground): Promise<string> {
  const rows = new Map<string, unknown[]>();
  const token = ground.ids();
  for (const { brief, standing, after } of changes) {
    const own = brief.trial || standing !== brief.standing;
    const [noun, id] = own ? ['brief', brief.id] : ['pipeline', brief.pipeline];
    const known = rows.get(id)?.[0];
    rows.set(id, [known ?? (rows.size === 0 ? token : ground.ids()), noun, id, own ? after.rev : 0]);
  }
  await sql.run('INSERT INTO event (id, noun, noun_id, rev) VALUES ?', [[...rows.values()]]);
  return token;
}

/**
 * The brief's rev guards the plan: what it was made from must still be so. The index is named here and at the runs' ends:
 * left to choose, the optimizer weighs every value of the list against every key, for as long as the update itself takes.
 */
export async function writeRevs(sql: Sql, changes: readonly BriefChange[], deskNow: number): Promise<void> {
  const groups = new Map<string, BriefChange[]>();
  for (const change of changes) {
    const key = `${checkedStanding(change.brief.standing, change.standing)} ${change.brief.rev}`;
    const group = groups.get(key);
    if (group) group.push(change);
    else groups.set(key, [change]);
  }
  for (const group of groups.values()) {
    const [{ standing, brief }] = group as [BriefChange];
    const ended = standing === 'out' || standing === 'set aside';
    must(
      await sql.run(
        // A brief that was held, or had a slot to wait for, begins to work anew; assignments count from the left.
        `UPDATE brief FORCE INDEX (PRIMARY) SET rev = rev + 1, ${standing === 'in work' ? "in_work_since = IF(standing = 'in work', in_work_since, UTC_TIMESTAMP(3)), " : ''}standing = ?, ended_desk = ? WHERE id IN (?) AND rev = ?`,
        [standing, ended ? deskNow : null, group.map((change) => change.brief.id), brief.rev],
      ),
      group.length,
    );
  }
}

async function writeEnds(sql: Sql, changes: readonly BriefChange[], holder: string): Promise<void> {
  const endings = changes.flatMap((change) => change.endings);
  const plain = endings.filter(
    (ending) => ending.state === 'done' && (ending.outcome === null || ending.outcome.kind === 'done'),
  );
  if (plain.length > 0) {
    must(
      await sql.run(
        `UPDATE step_run FORCE INDEX (PRIMARY) SET ${runMoves.end.set}, failure = NULL, incident = NULL, tries = 0 WHERE id IN (?) AND holder = ? AND ${runMoves.end.from}`,
        [plain.map((ending) => ending.run.id), holder],
      ),
      plain.length,
    );
  }
  for (const ending of endings) {
    if (plain.includes(ending)) continue;
    // Released between the failure and this commit: nothing would ever let this run go on, so it goes on now.
    if (ending.incident && !(await isOpen(sql, ending.incident)))
      Object.assign(ending, { state: 'waiting', incident: null, dueInMs: 0 });
    const { set, from } = runMoves[ENDS[ending.state]];
    must(
      await sql.run(
        `UPDATE step_run SET ${set}, outcome = ?, failure = ?, incident = ?, tries = ?, for_slot = ?, due_desk = ?,
          due_at = IF(? IS NULL, NULL, DATE_ADD(UTC_TIMESTAMP(3), INTERVAL ? MICROSECOND)) WHERE id = ? AND holder = ? AND ${from}`,
        [
          ending.outcome ? JSON.stringify(ending.outcome) : null,
          ending.failure ? JSON.stringify(ending.failure) : null,
          ending.incident,
          ending.tries,
          ending.forSlot ? 1 : 0,
          ending.dueDesk,
          ending.dueInMs,
          (ending.dueInMs ?? 0) * 1_000,
          ending.run.id,
          holder,
        ],
      ),
      1,
    );
  }
}

/**
 * Steps that were done before they had a row: it is written as it ended. What is the same for many rows is said once: a
 * list of values is read and its letters converted in a third of a row's time.
 */
async function writeCarried(sql: Sql, changes: readonly BriefChange[]): Promise<void> {
  const groups = new Map<string, { same: unknown[]; ended: boolean; rows: unknown[][] }>();
  for (const { brief, carried } of changes)
    for (const { run, state, outcome } of carried) {
      const lane = laneOf(null, brief.priority);
      const chosen = outcome && outcome.kind !== 'done' ? JSON.stringify(outcome) : null;
      const same = [run.round, run.opens ? 1 : 0, run.kind, state, lane, run.attempts, chosen];
      const key = same.join(' ');
      let group = groups.get(key);
      if (!group) {
        group = { same, ended: state === 'done', rows: [] };
        groups.set(key, group);
      }
      group.rows.push([run.id, brief.id, run.path]);
    }
  for (const { same, ended, rows } of groups.values())
    await sql.run(
      `INSERT INTO step_run (id, brief, path, round, opens, kind, state, home_lane, attempts, outcome, ended_at)
       SELECT v.*, ?, ?, ?, ?, ?, ?, ?, ${ended ? 'UTC_TIMESTAMP(3)' : 'NULL'} FROM (VALUES ?) v`,
      [...same, rows],
    );
}

/** What ended steps gave. Only one that was attempted before can have an output, from when it was to come back later. */
async function writeOutputs(sql: Sql, changes: readonly BriefChange[], ground: Ground): Promise<void> {
  const first: unknown[][] = [];
  const others: unknown[][] = [];
  for (const { endings, carried } of changes)
    for (const { run, state, inputDigest, fields } of [...endings, ...carried]) {
      if (fields === null) continue;
      const row = [run.id, inputDigest, JSON.stringify(fields)];
      if (run.attempts === 1 && state === 'done') first.push(row);
      else others.push([...row, state === 'held' ? new Date(ground.desk.now()) : null]);
    }
  if (first.length > 0) await sql.run('INSERT INTO output (step_run, input_digest, proposed) VALUES ?', [first]);
  if (others.length > 0)
    await sql.run(
      'INSERT INTO output (step_run, input_digest, proposed, held_at) VALUES ? ON DUPLICATE KEY UPDATE proposed = VALUES(proposed), input_digest = VALUES(input_digest), held_at = VALUES(held_at)',
      [others],
    );
}

async function isOpen(sql: Sql, incident: string): Promise<boolean> {
  return (await sql.rows('SELECT 1 FROM incident WHERE id = ? AND open = 1 LOCK IN SHARE MODE', [incident])).length > 0;
}

/**
 * Attempts that did not end the step. How the last one went is told by the run itself, so a step that ends at its first
 * attempt, as nearly all do, has no row (a row for each was a tenth of a batch's time).
 */
async function writeAttempts(sql: Sql, changes: readonly BriefChange[], holder: string): Promise<void> {
  const rows = changes.flatMap((change) =>
    change.endings
      .filter((ending) => ending.failure !== null)
      .map((ending) => [
        ending.run.id,
        ending.run.attempts,
        holder,
        ending.run.startedAt,
        ending.state,
        JSON.stringify(ending.failure),
        ending.micros,
      ]),
  );
  if (rows.length > 0)
    await sql.run('INSERT INTO attempt (step_run, n, worker, started_at, result, failure, micros) VALUES ?', [rows]);
}

/** The batch's token is the id of an event it wrote, so finding that tells whether it was committed. */
export async function wasCommitted(sql: Sql, token: string): Promise<boolean> {
  return (await sql.rows('SELECT 1 FROM event WHERE id = ?', [token])).length > 0;
}
