import { isLostConnection } from '../store/database.ts';
import { type BriefChange, type ChangePorts, changeOf } from './briefChange.ts';
import type { BriefState, RunState } from './briefState.ts';
import { Mismatch, wasCommitted, writeBatch } from './commitBatch.ts';
import type { Ending } from './ending.ts';
import { laneOf } from './lane.ts';
import type { Ground } from './outside.ts';

export interface FlusherPorts {
  ground: Ground;
  holder: () => string;
  /** The service a kind would call now, for the lane of its run. */
  serviceFor: (kind: string) => string | null;
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
    const { ground, serviceFor, handoff } = this.ports;
    return changeOf(brief, endings, { ids: ground.ids, serviceFor, handoff });
  }

  private publish(changes: readonly BriefChange[]): void {
    const lanes = new Set<string>();
    const pipelines = new Set<string>();
    for (const change of changes) {
      for (const fresh of change.fresh) if (!fresh.handed) lanes.add(fresh.lane);
      for (const ending of change.endings)
        if (ending.state === 'ready') lanes.add(laneOf(this.ports.serviceFor(ending.run.kind), change.brief.priority));
      if (change.standing !== 'in work') pipelines.add(change.brief.pipeline);
      const handed = change.fresh.filter((fresh) => fresh.handed).map((fresh) => fresh.run);
      this.ports.onHanded(change.after, handed);
      for (const ending of change.endings) ending.settled(true);
    }
    this.ports.onCommitted({ lanes, pipelines });
  }
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
