import type { Database } from '../ground/store/database.ts';
import type { ServiceDirectory } from '../ports/services/directory.ts';

const IDLE_MS = 400;

interface Held {
  /** Permit rows this process holds. */
  rows: number;
  /** Of those, in use by a step. */
  used: number;
  idleSince: number;
}

/**
 * How many calls may run at once at a service is a number of rows in the database, so the limit holds over all
 * processes. A process takes rows in bulk, lends them to its steps, and gives back what lies idle.
 */
export class Permits {
  private readonly held = new Map<string, Held>();
  /** Changes of permit rows under way; what the table says is only compared while there are none. */
  private changing = 0;

  constructor(
    private readonly db: Database,
    private readonly services: ServiceDirectory,
    private readonly holder: () => string,
    private readonly now: () => number,
  ) {}

  /** Lends one permit that lies idle here, without asking the database. */
  tryUse(service: string): boolean {
    const held = this.held.get(service);
    if (!held || held.used >= held.rows) return false;
    held.used++;
    return true;
  }

  /** Lends up to `wanted` permits, taking rows from the database for those that are missing here. */
  async use(service: string, wanted: number): Promise<number> {
    const held = this.held.get(service) ?? { rows: 0, used: 0, idleSince: this.now() };
    this.held.set(service, held);
    const idle = held.rows - held.used;
    if (idle < wanted) {
      // Added once they are known: others may have taken rows meanwhile.
      const taken = await this.take(service, wanted - idle);
      held.rows += taken;
    }
    const lent = Math.min(wanted, held.rows - held.used);
    held.used += lent;
    return lent;
  }

  giveBack(service: string, n = 1): void {
    const held = this.held.get(service);
    if (!held) return;
    held.used = Math.max(0, held.used - n);
    held.idleSince = this.now();
  }

  /** Frees rows that lay idle for a while, so that other processes find them. */
  async freeIdle(all = false): Promise<boolean> {
    let freed = false;
    for (const [service, held] of this.held) {
      const idle = held.rows - held.used;
      if (idle <= 0 || (!all && this.now() - held.idleSince < IDLE_MS)) continue;
      held.rows -= idle;
      freed = true;
      await this.changed('UPDATE permit SET holder = NULL WHERE service = ? AND holder = ? LIMIT ?', [
        service,
        this.holder(),
        idle,
      ]);
    }
    return freed;
  }

  /**
   * Brings what this process believes it holds in line with the table: after a connection was lost in the middle of
   * taking or freeing rows, one of the two is wrong.
   */
  async reconcile(): Promise<void> {
    if (this.changing > 0) return;
    const rows = await this.db.rows<{ service: string; n: number; highest: number }>(
      'SELECT service, COUNT(*) AS n, MAX(n) AS highest FROM permit WHERE holder = ? GROUP BY service',
      [this.holder()],
    );
    if (this.changing > 0) return;
    const found = new Map(rows.map((row) => [row.service, Number(row.n)]));
    for (const { service, highest } of rows)
      if (highest > this.most(service)) found.set(service, found.get(service)! - (await this.lower(service)));
    for (const service of new Set([...found.keys(), ...this.held.keys()])) {
      const held = this.held.get(service) ?? { rows: 0, used: 0, idleSince: 0 };
      held.rows = found.get(service) ?? 0;
      this.held.set(service, held);
    }
  }

  private async changed(text: string, parameters: unknown[]): Promise<number> {
    this.changing++;
    try {
      return await this.db.run(text, parameters);
    } finally {
      this.changing--;
    }
  }

  forget(): void {
    this.held.clear();
  }

  /** How many calls the service may have at once, as it is set now. */
  private most(service: string): number {
    return this.services.get(service)?.permits ?? 0;
  }

  /** Gives up what this process holds above a limit that was lowered; calls that use it end, and no other begins. */
  private lower(service: string): Promise<number> {
    return this.changed('DELETE FROM permit WHERE service = ? AND holder = ? AND n > ?', [
      service,
      this.holder(),
      this.most(service),
    ]);
  }

  private async take(service: string, wanted: number): Promise<number> {
    const claim = () =>
      this.changed('UPDATE permit SET holder = ? WHERE service = ? AND holder IS NULL AND n <= ? ORDER BY n LIMIT ?', [
        this.holder(),
        service,
        this.most(service),
        wanted,
      ]);
    const got = await claim();
    if (got > 0) return got;
    return (await this.provide(service)) ? claim() : 0;
  }

  /** Makes the rows a service should have; of those above a lowered limit the free ones go. */
  private async provide(service: string): Promise<boolean> {
    const most = this.most(service);
    await this.db.run('DELETE FROM permit WHERE service = ? AND n > ? AND holder IS NULL', [service, most]);
    const [{ n } = { n: 0 }] = await this.db.rows<{ n: number }>(
      'SELECT COUNT(*) AS n FROM permit WHERE service = ? AND n <= ?',
      [service, most],
    );
    if (n >= most) return false;
    const missing = Array.from({ length: most }, (_, i) => [service, i + 1]);
    await this.db.run('INSERT IGNORE INTO permit (service, n) VALUES ?', [missing]);
    return true;
  }
}
