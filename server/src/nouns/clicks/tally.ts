import type { Database } from '../../ground/store/database.ts';
import { addClicks, type Click } from './repository.ts';

/** Clicks are written together, so that a flood of them is a few statements; what is younger is lost with the process. */
const WRITE_EVERY_MS = 1_000;
/** Different links at once; more come from nobody who reads. */
const MOST = 5_000;

/** Clicks until they are written. */
export class ClickTally {
  private clicks = new Map<string, Click & { times: number }>();
  private timer: NodeJS.Timeout | null = null;
  private writing: Promise<void> = Promise.resolve();

  constructor(private readonly db: Database) {}

  add(click: Click): void {
    const key = `${click.by} ${click.day} ${click.address}`;
    const known = this.clicks.get(key);
    if (known) known.times++;
    else if (this.clicks.size < MOST) this.clicks.set(key, { ...click, times: 1 });
    this.timer ??= setTimeout(() => void this.write(), WRITE_EVERY_MS).unref();
  }

  /** Writes what came since; clicks that cannot be written now are tried again with the next. */
  write(): Promise<void> {
    if (this.timer) clearTimeout(this.timer);
    this.timer = null;
    this.writing = this.writing.then(async () => {
      const clicks = this.clicks;
      this.clicks = new Map();
      const left = [...clicks.values()];
      try {
        while (left.length > 0) {
          await addClicks(this.db, [left[0]!]);
          left.shift();
        }
      } catch {
        for (const { times, ...click } of left) for (let n = 0; n < times; n++) this.add(click);
      }
    });
    return this.writing;
  }
}
