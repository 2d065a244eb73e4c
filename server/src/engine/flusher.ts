import { stepIdOf } from '@grivo/core';
import type { Ground } from '../ground/ground.ts';
import { isLostConnection } from '../ground/store/database.ts';
import { type BriefChange, type ChangePorts, changeOf } from './briefChange.ts';
import type { BriefState, RunState } from './briefState.ts';
import { Mismatch, wasCommitted, writeBatch } from './commitBatch.ts';
import type { Ending } from './ending.ts';
import { laneOf, type ServiceFor } from './lane.ts';
import { stopRuns } from './stop.ts';

export interface FlusherPorts {
  ground: Ground;
  holder: () => string;
  /** The service a kind would call now, for the lane of its run. */
  serviceFor: ServiceFor;
  /** Whether this worker takes a step straight on: it has room, and a permit if one is needed. */
  handoff: ChangePorts['handoff'];
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

/** Steps of a batch, those carried on among them. */
const MOST_IN_BATCH = 400;
/**
 * A batch grows as long as every turn of the event loop brings more ends, for so long at most; a lone end waits for one
 * turn only.
 */
const GATHER_MS = 5;
/** Batches committed at the same time: while the database works on one, the next is made up. */
const MOST_FLUSHES = 3;

/**
 * Commits ended steps in small batches of whatever has ended: the end, its output, its attempt, the brief's rev, the
 * events and the next steps in one transaction. A batch that does not match the database is settled brief by brief.
 */
export class Flusher {
  private waiting: Ending[] = [];
  private gathering = false;
  private flushing = 0;

  constructor(private readonly ports: FlusherPorts) {}

  add(ending: Ending): void {
    this.waiting.push(ending);
    this.gather();
  }

  get idle(): boolean {
    return this.waiting.length === 0 && this.flushing === 0;
  }

  /** Waits, turn by turn, until no more ends come at once, then commits. */
  private gather(): void {
    if (this.gathering || this.flushing >= MOST_FLUSHES) return;
    this.gathering = true;
    const since = this.ports.ground.now();
    let seen = 0;
    const look = () => {
      const many = this.waiting.length;
      if (many > seen && many < MOST_IN_BATCH && this.ports.ground.now() - since < GATHER_MS) {
        seen = many;
        setImmediate(look);
        return;
      }
      this.gathering = false;
      this.flush().catch((error) => this.ports.ground.log.error({ err: error }, 'flush failed'));
    };
    setImmediate(look);
  }

  private async flush(): Promise<void> {
    if (this.waiting.length === 0) return;
    this.flushing++;
    try {
      const batch = this.waiting.splice(0, this.mostNow());
      if (this.waiting.length > 0) this.gather();
      await this.commit(batch);
    } finally {
      this.flushing--;
      if (this.waiting.length > 0) this.gather();
    }
  }

  /** How many of the ends that wait make a batch. */
  private mostNow(): number {
    let steps = 0;
    const over = this.waiting.findIndex(({ carried }) => {
      steps += 1 + (carried?.endings.length ?? 0);
      return steps > MOST_IN_BATCH;
    });
    return over === -1 ? this.waiting.length : Math.max(1, over);
  }

  private async commit(batch: Ending[]): Promise<void> {
    const groups = byBrief(batch);
    let changes: BriefChange[] = [];
    try {
      changes = groups.map((endings) => this.change(this.ports.latest(endings[0]!.brief), endings));
      if ((await this.attempt(changes)).kind === 'committed') return;
    } catch (error) {
      // One brief that cannot be planned: which it is shows when each is settled by itself.
      this.ports.ground.log.error({ err: error }, 'batch not made up');
    }
    // One brief that cannot be settled keeps no other from it.
    for (const endings of groups)
      await this.settleAlone(endings).catch((error: unknown) => this.giveUp(endings, error));
  }

  /** Neither committed nor refused: the database is away, and others take over what is in hand; or a fault of ours, which is said. */
  private async giveUp(endings: readonly Ending[], error: unknown): Promise<void> {
    const { ground } = this.ports;
    const { id } = endings[0]!.brief;
    const lost = isLostConnection(error);
    ground.log[lost ? 'warn' : 'error']({ err: error, brief: id }, 'brief not settled');
    if (!lost)
      await ground.db
        .transaction(async (sql) => {
          await sql.rows('SELECT id FROM brief WHERE id = ? FOR UPDATE', [id]);
          return stopRuns(sql, ground, id, defectOf(error).failure!);
        })
        .catch((again: unknown) => ground.log.error({ err: again, brief: id }, 'brief not stopped'));
    for (const ending of endings) ending.settled(false);
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
      const done = await this.attempt([change]);
      if (done.kind === 'committed') return;
      if (done.kind === 'mismatch') continue;
      if (endings.length > 1) {
        for (const ending of endings) await this.settleAlone([ending]);
        return;
      }
      const [ending] = endings as [Ending];
      // What was carried on is done later by itself; what the database refuses even so, it will refuse for ever.
      if (ending.carried) ending.carried = null;
      else if (ending.failure?.code === 'defect') throw done.error;
      else Object.assign(ending, defectOf(done.error));
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

  private async attempt(changes: BriefChange[]): Promise<Attempted> {
    const { ground } = this.ports;
    try {
      let token = '';
      await ground.db.transaction(
        async (sql) => {
          token = '';
          token = await writeBatch(sql, changes, this.ports.holder(), ground);
          return true;
        },
        async (sql) => (token !== '' && (await wasCommitted(sql, token)) ? true : undefined),
      );
      this.publish(changes);
      return { kind: 'committed' };
    } catch (error) {
      for (const change of changes)
        for (const fresh of change.fresh) if (fresh.handed) this.ports.onTakenBack(fresh.service);
      if (error instanceof Mismatch || isLostConnection(error)) return { kind: 'mismatch' };
      ground.log.error(
        { err: error, briefs: changes.map((change) => change.brief.id) },
        'batch refused by the database',
      );
      return { kind: 'refused', error };
    }
  }

  private serviceOf(brief: BriefState, run: RunState): string | null {
    return this.ports.serviceFor(run.kind, brief.steps.get(stepIdOf(run.path)), brief.document);
  }

  private change(brief: BriefState, endings: Ending[]): BriefChange {
    const { ground, serviceFor, handoff } = this.ports;
    return changeOf(brief, endings, { ids: ground.ids, serviceFor, handoff });
  }

  private publish(changes: readonly BriefChange[]): void {
    const lanes = new Set<string>();
    const pipelines = new Set<string>();
    for (const change of changes) {
      for (const fresh of change.fresh) if (!fresh.handed) lanes.add(fresh.lane);
      for (const ending of change.endings)
        if (ending.state === 'ready')
          lanes.add(laneOf(this.serviceOf(change.brief, ending.run), change.brief.priority));
      if (change.standing !== 'in work') pipelines.add(change.brief.pipeline);
      const handed = change.fresh.filter((fresh) => fresh.handed).map((fresh) => fresh.run);
      this.ports.onHanded(change.after, handed);
      for (const ending of change.endings) ending.settled(true);
    }
    this.ports.onCommitted({ lanes, pipelines });
  }
}

type Attempted = { kind: 'committed' } | { kind: 'mismatch' } | { kind: 'refused'; error: unknown };

/** The end of a step whose result the database refuses: stopped, for a person to see, with what the database says. */
function defectOf(error: unknown): Partial<Ending> {
  const { message, stack = '' } = error instanceof Error ? error : new Error(String(error));
  return {
    state: 'stopped',
    outcome: null,
    fields: null,
    incident: null,
    dueInMs: null,
    dueDesk: null,
    forSlot: false,
    writes: [],
    failure: {
      code: 'defect',
      message: `what it gave could not be kept: ${message.slice(0, 500)}`,
      stack: stack.slice(0, 4_000),
    },
  };
}

function byBrief(batch: readonly Ending[]): Ending[][] {
  const groups = new Map<string, Ending[]>();
  for (const ending of batch) {
    const group = groups.get(ending.brief.id);
    if (group) group.push(ending);
    else groups.set(ending.brief.id, [ending]);
  }
  return [...groups.values()];
}
