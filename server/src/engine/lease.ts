import type { Ground } from '../ground/ground.ts';

export type ProcessRole = 'api' | 'worker' | 'both';

/**
 * A process's row and its lease. One renewal holds all the steps the process works on. When the lease runs out without
 * renewal, everything in hand is given up: others may already have it.
 */
export class Lease {
  readonly id: string;
  private until = 0;
  private wanted = 0;
  private timer: NodeJS.Timeout | null = null;
  private readonly lost = new AbortController();

  constructor(
    private readonly ground: Ground,
    private readonly role: ProcessRole,
    private readonly address: string,
    readonly leaseSeconds = 15,
  ) {
    this.id = ground.ids();
  }

  /** Aborted when the lease was lost. */
  get signal(): AbortSignal {
    return this.lost.signal;
  }

  async take(): Promise<void> {
    const before = this.ground.now();
    await this.ground.db.run(
      'INSERT INTO worker (id, role, address, lease_until) VALUES (?, ?, ?, DATE_ADD(UTC_TIMESTAMP(3), INTERVAL ? SECOND))',
      [this.id, this.role, this.address, this.leaseSeconds],
    );
    this.until = before + this.leaseSeconds * 1_000;
    this.schedule();
  }

  /** Whether the lease will still hold after so many milliseconds, renewing it for longer if need be. */
  async outlasts(ms: number): Promise<boolean> {
    if (this.lost.signal.aborted) return false;
    const needed = this.ground.now() + ms + 1_000;
    if (this.until > needed) return true;
    // A whole lease more than asked for, so that steps asking one after the other renew once.
    this.wanted = Math.max(this.wanted, needed + this.leaseSeconds * 1_000);
    await this.renew();
    return this.until > needed && !this.lost.signal.aborted;
  }

  async giveBack(): Promise<void> {
    if (this.timer) clearTimeout(this.timer);
    this.timer = null;
    await this.ground.db.run('DELETE FROM worker WHERE id = ?', [this.id]);
  }

  private schedule(): void {
    this.timer = setTimeout(
      () => {
        this.renew()
          .catch((error) => this.ground.log.warn({ err: error, worker: this.id }, 'lease not renewed'))
          .finally(() => {
            if (this.ground.now() > this.until) this.lost.abort();
            if (this.timer && !this.lost.signal.aborted) this.schedule();
          });
      },
      (this.leaseSeconds * 1_000) / 4,
    );
    this.timer.unref();
  }

  private async renew(): Promise<void> {
    const before = this.ground.now();
    const seconds = Math.ceil(Math.max(this.leaseSeconds, (this.wanted - before) / 1_000));
    const renewed = await this.ground.db.run(
      'UPDATE worker SET lease_until = DATE_ADD(UTC_TIMESTAMP(3), INTERVAL ? SECOND) WHERE id = ? AND lease_until > UTC_TIMESTAMP(3)',
      [seconds, this.id],
    );
    if (renewed === 0) {
      this.lost.abort();
      return;
    }
    this.until = before + seconds * 1_000;
  }
}
