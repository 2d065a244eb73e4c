import { fireDue } from '../schedules/fire.ts';
import type { ServiceDirectory } from '../services/directory.ts';
import { isLostConnection } from '../store/database.ts';
import { admit, pipelinesWaiting } from './admission.ts';
import { type BriefState, loadBriefs, Procedures, type RunState } from './briefState.ts';
import { claim, fullLanes, wakeDue } from './claims.ts';
import type { Ending, Held } from './ending.ts';
import { Flusher } from './flusher.ts';
import { priorityOfLane, roleCalled, serviceOfLane } from './lane.ts';
import { Lease, type ProcessRole } from './lease.ts';
import type { Ground } from './outside.ts';
import { perform } from './perform.ts';
import type { Performers } from './performer.ts';
import { Permits } from './permits.ts';
import { reap } from './reaper.ts';
import type { Bell, Ring } from './ring.ts';

export interface EngineOptions {
  role: ProcessRole;
  performers: Performers;
  /** Most steps in hand at once. */
  capacity?: number;
  leaseSeconds?: number;
  /** Milliseconds between safety scans. */
  scanMs?: number;
}

/** What a worker process does: claims, performs, commits, and keeps time. */
export class Engine {
  private lease: Lease;
  private readonly permits: Permits;
  private readonly procedures = new Procedures();
  private readonly flusher: Flusher;
  private readonly briefs = new Map<string, BriefState>();
  private readonly inHand = new Map<string, { brief: string; abort: AbortController; service: string | null }>();
  private readonly marks = new Map<string, string>();
  private readonly hot = new Set<string>();
  private readonly dirty = new Set<string>();
  private readonly timers = new Set<NodeJS.Timeout>();
  private readonly capacity: number;
  private stopping = false;
  private pumping = false;
  private pumpAgain = false;
  private admitting = false;
  private forgotten = new Set<string>();
  private unhear: () => void = () => undefined;

  constructor(
    private readonly ground: Ground,
    private readonly bell: Bell,
    private readonly services: ServiceDirectory,
    private readonly options: EngineOptions,
  ) {
    this.capacity = options.capacity ?? 400;
    this.lease = new Lease(ground, options.role, bell.address, options.leaseSeconds);
    this.permits = new Permits(ground.db, services, () => this.lease.id, ground.now);
    this.flusher = new Flusher({
      ground,
      holder: () => this.lease.id,
      serviceFor: (kind) => this.serviceFor(kind),
      handoff: (service) => this.mayHandOff(service),
      onHanded: (brief, runs) => this.onHanded(brief, runs),
      onCommitted: ({ lanes, pipelines }) => this.onCommitted(lanes, pipelines),
      onTakenBack: (service) => service && this.permits.giveBack(service),
      latest: (brief) => this.briefs.get(brief.id) ?? brief,
      reload: (id) => this.reload(id),
    });
  }

  get worker(): string {
    return this.lease.id;
  }

  async start(): Promise<void> {
    await this.services.refresh();
    await this.ground.desk.refresh();
    await this.lease.take();
    this.unhear = this.bell.onRing((ring) => this.onRing(ring));
    const scan = this.options.scanMs ?? 2_000;
    this.every(scan, () => this.safetyScan());
    this.every(Math.min(scan, 250), () => this.keepTime());
    this.every(Math.min(scan, 300), () => this.tidy());
    await this.safetyScan();
  }

  /** Stops claiming, lets what is in hand end for a while, gives the rest back. */
  async stop(graceMs = 5_000): Promise<void> {
    this.stopping = true;
    this.unhear();
    for (const timer of this.timers) clearInterval(timer);
    const until = this.ground.now() + graceMs;
    while ((this.inHand.size > 0 || !this.flusher.idle) && this.ground.now() < until) await pause(10);
    for (const { abort } of this.inHand.values()) abort.abort();
    while (!this.flusher.idle && this.ground.now() < until + 2_000) await pause(10);
    await this.ground.db
      .run(
        "UPDATE step_run SET state = 'ready', lane = home_lane, holder = NULL WHERE holder = ? AND state = 'running'",
        [this.lease.id],
      )
      .catch((error) => this.ground.log.warn({ err: error }, 'steps in hand not given back'));
    await this.permits.freeIdle(true).catch(() => undefined);
    await this.ground.db
      .run('UPDATE permit SET holder = NULL WHERE holder = ?', [this.lease.id])
      .catch(() => undefined);
    await this.lease.giveBack().catch(() => undefined);
  }

  // ---- keeping time ---------------------------------------------------------------------------------------------

  private every(ms: number, work: () => Promise<void>): void {
    let busy = false;
    const timer = setInterval(() => {
      if (busy || this.stopping) return;
      busy = true;
      work()
        .catch((error) =>
          this.ground.log[isLostConnection(error) ? 'warn' : 'error']({ err: error }, 'engine round failed'),
        )
        .finally(() => {
          busy = false;
        });
    }, ms);
    timer.unref();
    this.timers.add(timer);
  }

  private onRing(ring: Ring): void {
    if (this.stopping) return;
    if (ring.kind === 'lane') {
      this.hot.add(ring.lane);
      this.marks.delete(ring.lane);
      this.pump();
    } else if (ring.kind === 'admit') this.admitSoon();
    else if (ring.kind === 'settings') {
      Promise.all([this.services.refresh(), this.ground.desk.refresh()])
        .then(() => this.keepTime())
        .catch((error) => this.ground.log.warn({ err: error }, 'settings not read again'));
    }
  }

  private async safetyScan(): Promise<void> {
    if (this.lease.signal.aborted) await this.beginAnew();
    await this.services.refresh();
    await this.ground.desk.refresh();
    for (const lane of await reap(this.ground)) this.hot.add(lane);
    await this.permits.reconcile();
    await this.giveBackForgotten();
    this.marks.clear();
    for (const lane of await fullLanes(this.ground.db)) this.hot.add(lane);
    for (const pipeline of await pipelinesWaiting(this.ground.db)) this.dirty.add(pipeline);
    await this.admitDirty();
    this.pump();
  }

  /**
   * Gives back steps this worker holds and knows nothing of: their claim was committed and the answer to it lost. Seen in
   * two scans, so that what is just being handed over is left alone.
   */
  private async giveBackForgotten(): Promise<void> {
    const rows = await this.ground.db.rows<{ id: string }>(
      "SELECT id FROM step_run WHERE holder = ? AND state = 'running'",
      [this.lease.id],
    );
    const unknown = rows.map(({ id }) => id).filter((id) => !this.inHand.has(id));
    const again = unknown.filter((id) => this.forgotten.has(id));
    this.forgotten = new Set(unknown.filter((id) => !again.includes(id)));
    if (again.length === 0) return;
    await this.ground.db.run(
      "UPDATE step_run SET state = 'ready', lane = home_lane, holder = NULL WHERE id IN (?) AND holder = ? AND state = 'running'",
      [again, this.lease.id],
    );
    this.ground.log.info({ worker: this.lease.id, steps: again.length }, 'gave back steps it held unknowingly');
  }

  private async keepTime(): Promise<void> {
    const woken = await wakeDue(this.ground.db, this.ground.desk.now());
    if (woken > 0) for (const lane of await fullLanes(this.ground.db)) this.bell.ring({ kind: 'lane', lane });
    if (await fireDue(this.ground, this.procedures)) this.bell.ring({ kind: 'admit' });
  }

  private async tidy(): Promise<void> {
    if (await this.permits.freeIdle()) return;
    if (this.briefs.size > this.capacity * 4)
      for (const id of this.briefs.keys())
        if (![...this.inHand.values()].some((held) => held.brief === id)) this.briefs.delete(id);
  }

  /** After a lost lease: everything in hand is given up and a new lease taken. */
  private async beginAnew(): Promise<void> {
    this.ground.log.warn({ worker: this.lease.id }, 'lease lost, beginning anew');
    for (const { abort } of this.inHand.values()) abort.abort();
    this.inHand.clear();
    this.briefs.clear();
    this.permits.forget();
    this.lease = new Lease(this.ground, this.options.role, this.bell.address, this.options.leaseSeconds);
    await this.lease.take();
  }

  // ---- letting in and claiming ------------------------------------------------------------------------------------

  private admitSoon(): void {
    pipelinesWaiting(this.ground.db)
      .then((pipelines) => {
        for (const pipeline of pipelines) this.dirty.add(pipeline);
        return this.admitDirty();
      })
      .catch((error) => this.ground.log.warn({ err: error }, 'briefs not let in'));
  }

  private async admitDirty(): Promise<void> {
    if (this.admitting) return;
    this.admitting = true;
    try {
      for (const pipeline of this.dirty) {
        this.dirty.delete(pipeline);
        const { lanes, briefs, more } = await admit(this.ground, this.procedures, pipeline, (kind) =>
          this.serviceFor(kind),
        );
        if (more) this.dirty.add(pipeline);
        for (const lane of lanes) this.bell.ring({ kind: 'lane', lane });
        if (briefs > 0) this.bell.ring({ kind: 'event' });
      }
    } finally {
      this.admitting = false;
    }
  }

  private serviceFor(kind: string): string | null {
    const role = roleCalled(kind);
    return role ? (this.services.standard(role)?.id ?? null) : null;
  }

  private pump(): void {
    if (this.pumping) {
      this.pumpAgain = true;
      return;
    }
    this.pumping = true;
    this.claimAll()
      .catch((error) => this.ground.log[isLostConnection(error) ? 'warn' : 'error']({ err: error }, 'claiming failed'))
      .finally(() => {
        this.pumping = false;
        if (this.pumpAgain && !this.stopping) {
          this.pumpAgain = false;
          this.pump();
        }
      });
  }

  private async claimAll(): Promise<void> {
    const lanes = [...this.hot].sort((a, b) => priorityOfLane(a) - priorityOfLane(b));
    for (const lane of lanes) {
      const room = this.capacity - this.inHand.size;
      if (this.stopping || this.lease.signal.aborted || room <= 0) return;
      const service = serviceOfLane(lane);
      const most = service ? await this.permits.use(service, Math.min(room, 50)) : Math.min(room, 200);
      if (most === 0) continue;
      const held = await this.claimOf(lane, service, most);
      if (held.length === 0) {
        if (this.marks.has(lane)) this.marks.delete(lane);
        else this.hot.delete(lane);
        continue;
      }
      this.marks.set(lane, held[held.length - 1]!.run);
      this.pumpAgain = true;
      await this.take(held, service);
    }
  }

  /** Claims rows of a lane; permits that find no step to be used by are given back, also when the claim fails. */
  private async claimOf(lane: string, service: string | null, most: number): Promise<Held[]> {
    let held: Held[] = [];
    try {
      held = await claim(this.ground.db, lane, this.marks.get(lane) ?? '', most, this.lease.id);
      return held;
    } finally {
      if (service && held.length < most) this.permits.giveBack(service, most - held.length);
    }
  }

  /** Reads the briefs of claimed steps and begins the steps. */
  private async take(held: readonly Held[], service: string | null): Promise<void> {
    for (const { run, brief } of held) this.inHand.set(run, { brief, abort: new AbortController(), service });
    const loaded = await loadBriefs(this.ground.db, this.procedures, [...new Set(held.map((h) => h.brief))]).catch(
      (error) => {
        for (const { run } of held) this.giveBack(run);
        throw error;
      },
    );
    for (const brief of loaded.values()) this.briefs.set(brief.id, brief);
    for (const { run, brief } of held) {
      const state = loaded.get(brief);
      const row = state?.runs.find((r) => r.id === run);
      if (state && row) this.begin(state, row);
      else this.letGo(run);
    }
  }

  private mayHandOff(service: string | null): boolean {
    if (this.stopping || this.lease.signal.aborted || this.inHand.size >= this.capacity) return false;
    return service === null || this.permits.tryUse(service);
  }

  private onHanded(brief: BriefState, runs: readonly RunState[]): void {
    this.briefs.set(brief.id, brief);
    if (runs.length === 0 && brief.standing !== 'in work') this.briefs.delete(brief.id);
    for (const run of runs) {
      const service = roleCalled(run.kind) ? this.serviceFor(run.kind) : null;
      this.inHand.set(run.id, { brief: brief.id, abort: new AbortController(), service });
      this.begin(brief, run);
    }
  }

  private onCommitted(lanes: ReadonlySet<string>, pipelines: ReadonlySet<string>): void {
    for (const lane of lanes) this.bell.ring({ kind: 'lane', lane });
    this.bell.ring({ kind: 'event' });
    if (pipelines.size > 0) {
      for (const pipeline of pipelines) this.dirty.add(pipeline);
      this.admitDirty().catch((error) => this.ground.log.warn({ err: error }, 'briefs not let in'));
    }
    if (this.hot.size > 0) this.pump();
  }

  // ---- performing -------------------------------------------------------------------------------------------------

  private begin(brief: BriefState, run: RunState): void {
    this.doStep(brief, run)
      .then((ending) => this.flusher.add(ending))
      .catch((error) => {
        this.ground.log[isLostConnection(error) ? 'warn' : 'error'](
          { err: error, brief: brief.id, step: run.id },
          'step not ended',
        );
        this.giveBack(run.id);
      });
  }

  private doStep(brief: BriefState, run: RunState): Promise<Ending> {
    const abort = this.inHand.get(run.id)?.abort.signal ?? AbortSignal.abort();
    return perform(brief, run, {
      ground: this.ground,
      performers: this.options.performers,
      signal: AbortSignal.any([abort, this.lease.signal]),
      leaseOutlasts: (ms) => this.lease.outlasts(ms),
      settled: (id) => this.letGo(id),
    });
  }

  private letGo(run: string): void {
    const held = this.inHand.get(run);
    if (!held) return;
    this.inHand.delete(run);
    if (held.service) this.permits.giveBack(held.service);
    if (this.hot.size > 0) this.pump();
  }

  /** A step that could not be ended here is left for the next claim. */
  private giveBack(run: string): void {
    this.letGo(run);
    this.ground.db
      .run(
        "UPDATE step_run SET state = 'waiting', holder = NULL, due_at = DATE_ADD(UTC_TIMESTAMP(3), INTERVAL 1 SECOND) WHERE id = ? AND holder = ? AND state = 'running'",
        [run, this.lease.id],
      )
      .catch((error) => this.ground.log.warn({ err: error, step: run }, 'step not given back; its lease will end'));
  }

  private async reload(id: string): Promise<BriefState | null> {
    const state = (await loadBriefs(this.ground.db, this.procedures, [id])).get(id) ?? null;
    if (state) this.briefs.set(id, state);
    else this.briefs.delete(id);
    return state;
  }
}

function pause(ms: number): Promise<void> {
  return new Promise((resolve) => setTimeout(resolve, ms));
}
