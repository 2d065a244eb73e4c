import type { ChangeEvent } from '@grivo/contract';
import type { Bell } from '../../engine/ring.ts';
import type { Ground } from '../../ground/ground.ts';

/** Commits are not in the order of their ids, so each reading looks back this far and drops what it has told. */
const LOOK_BACK_S = 15;
const GATHER_MS = 60;
const SAFETY_MS = 3_000;

/** Reads what changed and tells listeners, once for all of a process. */
export class EventFeed {
  private readonly told = new Map<string, number>();
  private readonly listeners = new Set<(events: ChangeEvent[]) => void>();
  private timer: NodeJS.Timeout | null = null;
  private readonly safety: NodeJS.Timeout;
  private readonly unhear: () => void;
  private reading = false;

  constructor(
    private readonly ground: Ground,
    bell: Bell,
  ) {
    this.unhear = bell.onRing((ring) => {
      if (ring.kind === 'event') this.soon();
    });
    this.safety = setInterval(() => this.soon(), SAFETY_MS);
    this.safety.unref();
  }

  listen(listener: (events: ChangeEvent[]) => void): () => void {
    // What happened before anybody listened is read by whoever begins to: it starts from the present state.
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  }

  close(): void {
    this.unhear();
    clearInterval(this.safety);
    if (this.timer) clearTimeout(this.timer);
  }

  private soon(): void {
    if (this.timer || this.listeners.size === 0) return;
    this.timer = setTimeout(() => {
      this.timer = null;
      this.read().catch((error) => this.ground.log.warn({ err: error }, 'events not read'));
    }, GATHER_MS);
  }

  private async read(): Promise<void> {
    if (this.reading) return;
    this.reading = true;
    try {
      const rows = await this.ground.db.rows<ChangeEvent>(
        'SELECT id, noun, noun_id AS nounId, rev FROM event WHERE at >= DATE_SUB(UTC_TIMESTAMP(3), INTERVAL ? SECOND) ORDER BY at, id LIMIT 5000',
        [LOOK_BACK_S],
      );
      const now = this.ground.now();
      const fresh = rows.filter((row) => !this.told.has(row.id));
      for (const row of fresh) this.told.set(row.id, now);
      for (const [id, at] of this.told) if (at < now - 2 * LOOK_BACK_S * 1_000) this.told.delete(id);
      // One hint for each thing is enough.
      const latest = [...new Map(fresh.map((row) => [`${row.noun}/${row.nounId}`, row])).values()];
      if (latest.length > 0) for (const listener of this.listeners) listener(latest);
    } finally {
      this.reading = false;
    }
  }
}
