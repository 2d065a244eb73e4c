import { type BriefStanding, type Failure, type PlanRun, plan, type StepState, standingOf } from '@grivo/core';
import { isLostConnection, type Sql } from '../store/database.ts';
import type { BriefState, RunState } from './briefState.ts';
import { laneOf, roleCalled } from './lane.ts';
import type { Ground } from './outside.ts';
import type { Fields, Write } from './performer.ts';

/** A step run in this worker's hands. */
export interface Held {
  run: string;
  brief: string;
}

/** How a run in hand ended, ready to be committed. */
export interface Ending {
  brief: BriefState;
  run: RunState;
  state: Exclude<StepState, 'running' | 'cancelled'>;
  outcome: PlanRun['outcome'];
  fields: Fields | null;
  inputDigest: string | null;
  failure: Failure | null;
  incident: string | null;
  dueInMs: number | null;
  dueDesk: number | null;
  forSlot: boolean;
  tries: number;
  micros: number;
  writes: Write[];
  /** Called once it is known whether the ending counted. */
  settled: (counted: boolean) => void;
}

export interface FlusherPorts {
  ground: Ground;
  holder: () => string;
  /** The service a kind would call now, for the lane of its run. */
  serviceFor: (kind: string) => string | null;
  /** Whether this worker takes the next step of a brief straight on, already leased: it has room, and a permit if one is needed. */
  handoff: (service: string | null) => boolean;
  /** Steps handed to this worker by a commit. */
  onHanded: (brief: BriefState, runs: RunState[]) => void;
  /** What others can now see: lanes with new rows, pipelines with room, briefs that changed. */
  onCommitted: (change: { lanes: Set<string>; pipelines: Set<string> }) => void;
  /** Handed steps that were not committed after all. */
  onTakenBack: (service: string | null) => void;
  /** The newest this worker knows of a brief. */
  latest: (brief: BriefState) => BriefState;
  reload: (id: string) => Promise<BriefState | null>;
}

const MOST_IN_BATCH = 200;
/** A batch waits this long for company; 2 ms cost no latency anyone sees and doubled the batch at 200 steps a batch. */
const GATHER_MS = 1;
/** Batches committed at the same time: while the database works on one, the next is made up. */
const MOST_FLUSHES = 2;

/** One brief's part of a batch: what is written, and what the brief looks like afterwards. */
interface BriefChange {
  brief: BriefState;
  endings: Ending[];
  after: BriefState;
  fresh: { run: RunState; handed: boolean; service: string | null; lane: string }[];
  cancelled: RunState[];
  standing: BriefStanding;
}

/**
 * Commits ended steps in small batches of whatever has ended: the end, its output, its attempt, the brief's rev, the
 * events and the next steps in one transaction. A batch that does not match the database is settled brief by brief.
 */
export class Flusher {
  private waiting: Ending[] = [];
  private timer: NodeJS.Timeout | null = null;
  private flushing = 0;

  constructor(private readonly ports: FlusherPorts) {}

  add(ending: Ending): void {
    this.waiting.push(ending);
    if (this.waiting.length >= MOST_IN_BATCH) this.flushSoon(0);
    else this.flushSoon(GATHER_MS);
  }

  get idle(): boolean {
    return this.waiting.length === 0 && this.flushing === 0;
  }

  private flushSoon(ms: number): void {
    if (this.flushing >= MOST_FLUSHES || (this.timer && ms > 0)) return;
    if (this.timer) clearTimeout(this.timer);
    this.timer = setTimeout(() => {
      this.timer = null;
      this.flush().catch((error) => this.ports.ground.log.error({ err: error }, 'flush failed'));
    }, ms);
  }

  private async flush(): Promise<void> {
    if (this.flushing >= MOST_FLUSHES) return;
    this.flushing++;
    try {
      while (this.waiting.length > 0) {
        const batch = this.waiting.splice(0, MOST_IN_BATCH);
        await this.commit(batch);
      }
    } finally {
      this.flushing--;
      if (this.waiting.length > 0) this.flushSoon(0);
    }
  }

  private async commit(batch: Ending[]): Promise<void> {
    const changes = byBrief(batch).map((endings) => this.change(this.ports.latest(endings[0]!.brief), endings));
    const all = await this.attempt(changes);
    if (all === 'committed') return;
    for (const change of changes) await this.settleAlone(change.endings);
  }

  /** One brief by itself, read afresh: keeps the endings whose run is still ours, drops the rest. */
  private async settleAlone(endings: Ending[]): Promise<void> {
    for (let tries = 0; tries < 20; tries++) {
      const fresh = await this.ports.reload(endings[0]!.brief.id);
      const own = fresh ? await this.stillOurs(endings) : [];
      for (const ending of endings) if (!own.includes(ending)) ending.settled(false);
      if (!fresh || own.length === 0) return;
      endings = own;
      for (const ending of endings) ending.brief = fresh;
      const change = this.change(fresh, endings);
      if ((await this.attempt([change])) === 'committed') return;
    }
    this.ports.ground.log.error({ brief: endings[0]!.brief.id }, 'brief could not be settled');
    for (const ending of endings) ending.settled(false);
  }

  private async stillOurs(endings: readonly Ending[]): Promise<Ending[]> {
    const rows = await this.ports.ground.db.rows<{ id: string }>(
      "SELECT id FROM step_run WHERE id IN (?) AND holder = ? AND state = 'running'",
      [endings.map((ending) => ending.run.id), this.ports.holder()],
    );
    const ids = new Set(rows.map((row) => row.id));
    return endings.filter((ending) => ids.has(ending.run.id));
  }

  private async attempt(changes: BriefChange[]): Promise<'committed' | 'mismatch'> {
    const { ground } = this.ports;
    try {
      const counted = await ground.db.transaction(
        async (sql) => {
          await write(sql, changes, this.ports.holder(), ground);
          return true;
        },
        // Attempts are written in the same transaction, so the last one tells whether it was committed.
        async (sql) => ((await wasCommitted(sql, changes, this.ports.holder())) ? true : undefined),
      );
      if (counted) this.publish(changes);
      return 'committed';
    } catch (error) {
      for (const change of changes)
        for (const fresh of change.fresh) if (fresh.handed) this.ports.onTakenBack(fresh.service);
      if (error instanceof Mismatch) return 'mismatch';
      if (isLostConnection(error)) return 'mismatch';
      ground.log.error(
        { err: error, briefs: changes.map((change) => change.brief.id) },
        'batch refused by the database',
      );
      if (changes.length === 1) throw error;
      return 'mismatch';
    }
  }

  private change(brief: BriefState, endings: Ending[]): BriefChange {
    const ends = new Map(endings.map((ending) => [ending.run.id, ending]));
    const runs = brief.runs.map((run): RunState => {
      const ending = ends.get(run.id);
      return ending
        ? { ...run, state: ending.state, outcome: ending.outcome, tries: ending.tries, forSlot: ending.forSlot }
        : run;
    });
    const next = plan(brief.nodes, runs);
    const cancelKeys = new Set(next.cancel.map((key) => `${key.path} ${key.round}`));
    const cancelled = runs.filter((run) => cancelKeys.has(`${run.path} ${run.round}`));
    const fresh = next.create.map(({ path, round, opens, node }) => {
      const kind = brief.steps.get(node.id)?.kind ?? node.type;
      const service = roleCalled(kind) ? this.ports.serviceFor(kind) : null;
      const handed = this.ports.handoff(service);
      const run: RunState = {
        id: this.ports.ground.ids(),
        path,
        round,
        opens,
        kind,
        state: handed ? 'running' : 'ready',
        outcome: null,
        attempts: handed ? 1 : 0,
        tries: 0,
        forSlot: false,
        startedAt: null,
      };
      return { run, handed, service, lane: laneOf(service, brief.priority) };
    });
    const kept = runs.map((run): RunState => (cancelled.includes(run) ? { ...run, state: 'cancelled' } : run));
    const allRuns = [...kept, ...fresh.map(({ run }) => run)];
    const open = allRuns.filter((run) => run.state !== 'done' && run.state !== 'cancelled');
    const ended = next.ended === 'done' ? 'out' : next.ended;
    const standing = standingOf(open, ended);
    const outputs = new Map(brief.outputs);
    for (const ending of endings)
      if (ending.fields) outputs.set(ending.run.id, { fields: ending.fields, inputDigest: ending.inputDigest });
    const after: BriefState = { ...brief, rev: brief.rev + 1, standing, runs: allRuns, outputs };
    return { brief, endings, after, fresh, cancelled, standing };
  }

  private publish(changes: readonly BriefChange[]): void {
    const lanes = new Set<string>();
    const pipelines = new Set<string>();
    for (const change of changes) {
      for (const fresh of change.fresh) if (!fresh.handed) lanes.add(fresh.lane);
      for (const ending of change.endings)
        if (ending.state === 'ready') lanes.add(laneOf(this.ports.serviceFor(ending.run.kind), change.brief.priority));
      if (change.standing !== 'in work') pipelines.add(change.brief.pipeline);
      for (const ending of change.endings) ending.settled(true);
      const handed = change.fresh.filter((fresh) => fresh.handed).map((fresh) => fresh.run);
      this.ports.onHanded(change.after, handed);
    }
    this.ports.onCommitted({ lanes, pipelines });
  }
}

/** Something in the batch is no longer as it was read; nothing was written. */
class Mismatch extends Error {}

function byBrief(batch: readonly Ending[]): Ending[][] {
  const groups = new Map<string, Ending[]>();
  for (const ending of batch) {
    const group = groups.get(ending.brief.id);
    if (group) group.push(ending);
    else groups.set(ending.brief.id, [ending]);
  }
  return [...groups.values()];
}

function must(matched: number, wanted: number): void {
  if (matched !== wanted) throw new Mismatch();
}

async function write(sql: Sql, changes: readonly BriefChange[], holder: string, ground: Ground): Promise<void> {
  await writeRevs(sql, changes, ground.desk.now());
  await writeEnds(sql, changes, holder);
  await writeAttempts(sql, changes, holder);
  const cancelled = changes.flatMap((change) => change.cancelled.map((run) => run.id));
  if (cancelled.length > 0) {
    must(
      await sql.run(
        "UPDATE step_run SET state = 'cancelled', lane = NULL, due_at = NULL, due_desk = NULL, holder = NULL, ended_at = UTC_TIMESTAMP(3) WHERE id IN (?) AND state NOT IN ('done', 'cancelled')",
        [cancelled],
      ),
      cancelled.length,
    );
  }
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
  for (const change of changes)
    for (const ending of change.endings)
      for (const { text, parameters } of ending.writes) await sql.run(text, parameters);
  await sql.run('INSERT INTO event (id, noun, noun_id, rev) VALUES ?', [
    changes.map((change) => [ground.ids(), 'brief', change.brief.id, change.after.rev]),
  ]);
}

/** The brief's rev guards the plan: what it was made from must still be so. */
async function writeRevs(sql: Sql, changes: readonly BriefChange[], deskNow: number): Promise<void> {
  const byStanding = new Map<string, BriefChange[]>();
  for (const change of changes) byStanding.set(change.standing, [...(byStanding.get(change.standing) ?? []), change]);
  for (const [standing, group] of byStanding) {
    const ended = standing === 'out' || standing === 'set aside';
    must(
      await sql.run(
        'UPDATE brief SET rev = rev + 1, standing = ?, ended_desk = ? WHERE id IN (?) AND (id, rev) IN (?)',
        [
          standing,
          ended ? deskNow : null,
          group.map((change) => change.brief.id),
          group.map((change) => [change.brief.id, change.brief.rev]),
        ],
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
        "UPDATE step_run SET state = 'done', holder = NULL, failure = NULL, incident = NULL, tries = 0, ended_at = UTC_TIMESTAMP(3) WHERE id IN (?) AND holder = ? AND state = 'running'",
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
    must(
      await sql.run(
        `UPDATE step_run SET state = ?, holder = NULL, outcome = ?, failure = ?, incident = ?, tries = ?, for_slot = ?, due_desk = ?,
          due_at = IF(? IS NULL, NULL, DATE_ADD(UTC_TIMESTAMP(3), INTERVAL ? MICROSECOND)), lane = IF(? = 'ready', home_lane, NULL),
          ended_at = IF(? = 'done', UTC_TIMESTAMP(3), NULL) WHERE id = ? AND holder = ? AND state = 'running'`,
        [
          ending.state,
          ending.outcome ? JSON.stringify(ending.outcome) : null,
          ending.failure ? JSON.stringify(ending.failure) : null,
          ending.incident,
          ending.tries,
          ending.forSlot ? 1 : 0,
          ending.dueDesk,
          ending.dueInMs,
          (ending.dueInMs ?? 0) * 1_000,
          ending.state,
          ending.state,
          ending.run.id,
          holder,
        ],
      ),
      1,
    );
  }
  const outputs = endings
    .filter((ending) => ending.fields !== null)
    .map((ending) => [ending.run.id, ending.inputDigest, JSON.stringify(ending.fields)]);
  if (outputs.length > 0)
    await sql.run(
      'INSERT INTO output (step_run, input_digest, proposed) VALUES ? ON DUPLICATE KEY UPDATE proposed = VALUES(proposed), input_digest = VALUES(input_digest)',
      [outputs],
    );
}

async function isOpen(sql: Sql, incident: string): Promise<boolean> {
  return (await sql.rows('SELECT 1 FROM incident WHERE id = ? AND open = 1 LOCK IN SHARE MODE', [incident])).length > 0;
}

async function writeAttempts(sql: Sql, changes: readonly BriefChange[], holder: string): Promise<void> {
  const rows = changes.flatMap((change) =>
    change.endings.map((ending) => [
      ending.run.id,
      ending.run.attempts,
      holder,
      ending.run.startedAt,
      ending.state,
      ending.failure ? JSON.stringify(ending.failure) : null,
      ending.micros,
    ]),
  );
  await sql.run('INSERT INTO attempt (step_run, n, worker, started_at, result, failure, micros) VALUES ?', [rows]);
}

async function wasCommitted(sql: Sql, changes: readonly BriefChange[], holder: string): Promise<boolean> {
  const last = changes[changes.length - 1]!.endings[0]!;
  const rows = await sql.rows('SELECT 1 FROM attempt WHERE step_run = ? AND n = ? AND worker = ?', [
    last.run.id,
    last.run.attempts,
    holder,
  ]);
  return rows.length > 0;
}
