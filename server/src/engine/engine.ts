import { setTimeout as pause } from 'node:timers/promises';
import { stepIdOf } from '@grivo/core';
import type { Ground } from '../ground/ground.ts';
import { isLostConnection } from '../ground/store/database.ts';
import type { ServiceDirectory } from '../ports/services/directory.ts';
import { Breakers } from './breakers.ts';
import type { BriefChange } from './briefChange.ts';
import { type BriefState, loadBriefs, Procedures, type RunState } from './briefState.ts';
import { carryOn } from './carryOn.ts';
import { claim, fullLanes, wakeDue } from './claims.ts';
import { Doorkeeper } from './doorkeeper.ts';
import type { Held } from './ending.ts';
import { Flusher } from './flusher.ts';
import { type Grip, Hand } from './hand.ts';
import { releasePastLimits, TRIES_ANYWAY } from './incidents.ts';
import { priorityOfLane, type ServiceFor, serviceCalledBy, serviceOfLane } from './lane.ts';
import { Lease } from './lease.ts';
import { runMoves } from './moves.ts';
import { type Chore, type EngineOptions, type Fires, NOTHING_FIRES } from './options.ts';
import { perform } from './perform.ts';
import { Permits } from './permits.ts';
import { placeInHand } from './place.ts';
import { reap } from './reaper.ts';
import type { Bell, Ring } from './ring.ts';
import { stopOverdue } from './stop.ts';
import { thin } from './thin.ts';

const THIN_MS = 10 * 60_000;
const CHORES_MS = 5_000;

/** Briefs a worker keeps in mind beyond those it works on. */
const MOST_BRIEFS_KNOWN = 1_600;

/** What a worker process does: claims, performs, commits, and keeps time. */
export class Engine {
  private lease: Lease;
  private readonly permits: Permits;
  private readonly breakers: Breakers;
  private readonly procedures = new Procedures();
  private readonly flusher: Flusher;
  private readonly briefs = new Map<string, BriefState>();
  private readonly hand: Hand;
  private readonly marks = new Map<string, string>();
  private readonly hot = new Set<string>();
  private readonly door: Doorkeeper;
  private readonly firing: Fires;
  private readonly serviceFor: ServiceFor;
  private readonly timers = new Set<NodeJS.Timeout>();
  private stopping = false;
  private pumping = false;
  private pumpAgain = false;
  private forgotten = new Set<string>();
  private unhear: () => void = () => undefined;

  constructor(
    private readonly ground: Ground,
    private readonly bell: Bell,
    private readonly services: ServiceDirectory,
    private readonly options: EngineOptions,
  ) {
    this.serviceFor = serviceCalledBy(services);
    this.hand = new Hand(options.capacity ?? 800);
    this.lease = new Lease(ground, options.role, bell.address, options.leaseSeconds);
    this.breakers = new Breakers(ground.db);
    this.permits = new Permits(ground.db, services, () => this.lease.id, ground.now);
    this.firing = options.firing?.(this.procedures, () => this.bell.ring({ kind: 'admit' })) ?? NOTHING_FIRES;
    this.door = new Doorkeeper({
      ground,
      procedures: this.procedures,
      pinsFor: options.pinsFor ?? (async () => []),
      holder: () => this.lease.id,
      serviceFor: this.serviceFor,
      mayTake: (service, priority, pledged) => this.mayHandOff(service, priority, pledged),
      onTakenBack: (service) => service && this.permits.giveBack(service),
      onAdmitted: (changes) => this.onAdmitted(changes),
    });
    this.flusher = new Flusher({
      ground,
      holder: () => this.lease.id,
      serviceFor: this.serviceFor,
      handoff: (service, priority, takesPlace) => this.mayHandOff(service, priority, takesPlace ? -1 : 0),
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
    await this.takeLease();
    this.unhear = this.bell.onRing((ring) => this.onRing(ring));
    const scan = this.options.scanMs ?? 2_000;
    this.every(scan, () => this.safetyScan());
    this.every(Math.min(scan, 250), () => this.keepTime());
    this.every(Math.min(scan, 300), () => this.tidy());
    for (const chores of [this.options.chores, this.options.upkeep])
      if (chores) this.every(CHORES_MS, () => this.inTurn(chores));
    this.every(THIN_MS, async () => void (await thin(this.ground)));
    await this.safetyScan();
  }

  /** Stops claiming, lets what is in hand end for a while, gives the rest back. */
  async stop(graceMs = 5_000): Promise<void> {
    this.stopping = true;
    this.door.close();
    this.unhear();
    for (const timer of this.timers) clearInterval(timer);
    const until = this.ground.now() + graceMs;
    await Promise.race([this.firing.settled(), pause(graceMs)]);
    while ((this.hand.size > 0 || !this.flusher.idle || this.door.busy) && this.ground.now() < until) await pause(10);
    this.hand.giveUp();
    while (!this.flusher.idle && this.ground.now() < until + 2_000) await pause(10);
    await this.ground.db
      .run(`UPDATE step_run SET ${runMoves['give back'].set} WHERE place = ? AND ${runMoves['give back'].from}`, [
        placeInHand(this.lease.id),
      ])
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
        .catch(this.sayFailed)
        .finally(() => {
          busy = false;
        });
    }, ms);
    timer.unref();
    this.timers.add(timer);
  }

  private readonly sayFailed = (error: unknown): void => {
    this.ground.log[isLostConnection(error) ? 'warn' : 'error']({ err: error }, 'engine round failed');
  };

  private async inTurn(chores: readonly Chore[]): Promise<void> {
    for (const chore of chores) {
      if (this.stopping) return;
      await chore().catch(this.sayFailed);
    }
  }

  private onRing(ring: Ring): void {
    if (this.stopping) return;
    if (ring.kind === 'lane') {
      this.hot.add(ring.lane);
      this.marks.delete(ring.lane);
      this.pump();
    } else if (ring.kind === 'admit') this.door.letInWaiting().catch((error) => this.notLetIn(error));
    else if (ring.kind === 'settings') {
      Promise.all([this.services.refresh(), this.ground.desk.refresh(), this.breakers.refresh()])
        .then(() => this.keepTime())
        .catch((error) => this.ground.log.warn({ err: error }, 'settings not read again'));
    }
  }

  private async safetyScan(): Promise<void> {
    if (this.lease.signal.aborted) await this.beginAnew();
    await this.services.refresh();
    await this.ground.desk.refresh();
    await this.breakers.refresh();
    for (const lane of await reap(this.ground)) this.hot.add(lane);
    await this.permits.reconcile();
    await stopOverdue(this.ground);
    await this.giveBackForgotten();
    this.marks.clear();
    for (const lane of await fullLanes(this.ground.db)) this.hot.add(lane);
    await this.door.letInWaiting();
    this.pump();
  }

  /**
   * Gives back steps this worker holds and knows nothing of: their claim was committed and the answer to it lost. Seen in
   * two scans, so that what is just being handed over is left alone.
   */
  private async giveBackForgotten(): Promise<void> {
    const rows = await this.ground.db.rows<{ id: string }>('SELECT id FROM step_run WHERE place = ?', [
      placeInHand(this.lease.id),
    ]);
    const unknown = rows.map(({ id }) => id).filter((id) => !this.hand.has(id));
    const again = unknown.filter((id) => this.forgotten.has(id));
    this.forgotten = new Set(unknown.filter((id) => !again.includes(id)));
    if (again.length === 0) return;
    await this.ground.db.run(
      `UPDATE step_run SET ${runMoves['give back'].set} WHERE id IN (?) AND holder = ? AND ${runMoves['give back'].from}`,
      [again, this.lease.id],
    );
    this.ground.log.info({ worker: this.lease.id, steps: again.length }, 'gave back steps it held unknowingly');
  }

  private async keepTime(): Promise<void> {
    const woken = await wakeDue(this.ground.db, this.ground.desk.now());
    if (woken > 0) for (const lane of await fullLanes(this.ground.db)) this.bell.ring({ kind: 'lane', lane });
    await this.firing.due();
    if ((await releasePastLimits(this.ground)) > 0)
      for (const lane of await fullLanes(this.ground.db)) this.bell.ring({ kind: 'lane', lane });
  }

  private async tidy(): Promise<void> {
    if (await this.permits.freeIdle()) return;
    if (this.briefs.size > MOST_BRIEFS_KNOWN) {
      const inHand = this.hand.briefs();
      for (const id of this.briefs.keys()) if (!inHand.has(id)) this.briefs.delete(id);
    }
  }

  /** After a lost lease: everything in hand is given up and a new lease taken. */
  private async beginAnew(): Promise<void> {
    this.ground.log.warn({ worker: this.lease.id }, 'lease lost, beginning anew');
    this.hand.clear();
    this.briefs.clear();
    this.permits.forget();
    this.lease = new Lease(this.ground, this.options.role, this.bell.address, this.options.leaseSeconds);
    await this.takeLease();
  }

  /** What is in hand is given up the moment the lease is lost. */
  private async takeLease(): Promise<void> {
    this.lease.signal.addEventListener('abort', () => this.hand.giveUp(), { once: true });
    await this.lease.take();
  }

  // ---- letting in and claiming ------------------------------------------------------------------------------------

  private notLetIn(error: unknown): void {
    this.ground.log.warn({ err: error }, 'briefs not let in');
  }

  private onAdmitted(changes: readonly BriefChange[]): void {
    if (changes.length === 0) return;
    const lanes = new Set<string>();
    for (const { after, fresh } of changes) {
      for (const { handed, lane } of fresh) if (!handed) lanes.add(lane);
      const runs = fresh.filter(({ handed }) => handed).map(({ run }) => run);
      if (runs.length > 0) this.onHanded(after, runs);
    }
    for (const lane of lanes) this.bell.ring({ kind: 'lane', lane });
    this.bell.ring({ kind: 'event' });
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
      const { room } = this.hand;
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
    const grips = held.map(({ run, brief }) => this.hand.take(run, brief, service));
    const loaded = await loadBriefs(this.ground.db, this.procedures, [...new Set(held.map((h) => h.brief))]).catch(
      (error) => {
        for (const grip of grips) this.giveBack(grip);
        throw error;
      },
    );
    for (const brief of loaded.values()) this.briefs.set(brief.id, brief);
    for (const grip of grips) {
      const state = loaded.get(grip.brief);
      const row = state?.runs.find((r) => r.id === grip.run);
      if (state && row) this.begin(state, row, grip);
      else this.letGo(grip);
    }
  }

  /**
   * With a full hand only a step that takes the place of one just ended is taken on, and only while nothing more urgent
   * waits to be claimed.
   * @param pledged places that will be taken, or given up when below zero, once a transaction is committed
   */
  private mayHandOff(service: string | null, priority: number, pledged: number): boolean {
    if (this.stopping || this.lease.signal.aborted || this.hand.room <= pledged) return false;
    if (this.hand.room <= 0 && [...this.hot].some((lane) => priorityOfLane(lane) < priority)) return false;
    return service === null || this.permits.tryUse(service);
  }

  private onHanded(brief: BriefState, runs: readonly RunState[]): void {
    this.briefs.set(brief.id, brief);
    if (runs.length === 0 && brief.standing !== 'in work') this.briefs.delete(brief.id);
    for (const run of runs) {
      const service = this.serviceFor(run.kind, brief.steps.get(stepIdOf(run.path)), brief.document);
      this.begin(brief, run, this.hand.take(run.id, brief.id, service));
    }
  }

  private onCommitted(lanes: ReadonlySet<string>, pipelines: ReadonlySet<string>): void {
    for (const lane of lanes) this.bell.ring({ kind: 'lane', lane });
    this.bell.ring({ kind: 'event' });
    if (pipelines.size > 0) this.door.letIn(pipelines).catch((error) => this.notLetIn(error));
    if (this.hot.size > 0) this.pump();
  }

  // ---- performing -------------------------------------------------------------------------------------------------

  private begin(brief: BriefState, run: RunState, grip: Grip): void {
    const ports = {
      ground: this.ground,
      performers: this.options.performers,
      grip,
      broken: this.breakers.at(grip.service),
      leaseOutlasts: (ms: number) => this.lease.outlasts(ms),
      settled: () => this.letGo(grip),
    };
    perform(brief, run, ports)
      .then((ending) =>
        carryOn(ending, { ...ports, ids: this.ground.ids, latest: (of) => this.briefs.get(of.id) ?? of }),
      )
      .then((ending) => {
        this.flusher.add(ending);
        // The next step need not find out for itself.
        if (ending.incident && !ports.broken) return this.breakers.refresh();
        if (run.tries === TRIES_ANYWAY && ending.failure === null && grip.service)
          return this.breakers.foundWell(grip.service);
      })
      .catch((error) => {
        this.ground.log[isLostConnection(error) ? 'warn' : 'error'](
          { err: error, brief: brief.id, step: run.id },
          'step not ended',
        );
        this.giveBack(grip);
      });
  }

  private letGo(grip: Grip): void {
    if (!this.hand.drop(grip)) return;
    if (grip.service) this.permits.giveBack(grip.service);
    if (this.hot.size > 0) this.pump();
  }

  /** A step that could not be ended here is left for the next claim. */
  private giveBack(grip: Grip): void {
    this.letGo(grip);
    this.ground.db
      .run(
        `UPDATE step_run SET ${runMoves.pause.set}, due_at = DATE_ADD(UTC_TIMESTAMP(3), INTERVAL 1 SECOND) WHERE id = ? AND holder = ? AND ${runMoves.pause.from}`,
        [grip.run, this.lease.id],
      )
      .catch((error) =>
        this.ground.log.warn({ err: error, step: grip.run }, 'step not given back; its lease will end'),
      );
  }

  private async reload(id: string): Promise<BriefState | null> {
    const state = (await loadBriefs(this.ground.db, this.procedures, [id])).get(id) ?? null;
    if (state) this.briefs.set(id, state);
    else this.briefs.delete(id);
    return state;
  }
}
