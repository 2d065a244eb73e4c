import type { Sql } from '../store/database.ts';

interface ClockRow {
  base_real: number;
  base_desk: number;
  speed: number;
}

/**
 * The clock people see: slots, looks and due times follow it. It is the real clock with an offset and a speed kept in
 * one row, so that tests and the demonstration move time without touching the engine. Leases and retries never use it.
 */
export class DeskClock {
  private row: ClockRow = { base_real: 0, base_desk: 0, speed: 1 };
  /** How often it was moved here: what was read before that is older. */
  private moved = 0;

  constructor(
    private readonly sql: Sql,
    private readonly realNow: () => number,
  ) {}

  async refresh(): Promise<void> {
    const { moved } = this;
    const [row] = await this.sql.rows<ClockRow>('SELECT base_real, base_desk, speed FROM desk_clock WHERE id = 1');
    if (row && moved === this.moved)
      this.row = { base_real: Number(row.base_real), base_desk: Number(row.base_desk), speed: Number(row.speed) };
  }

  /** Desk time in milliseconds since 1970. */
  now(): number {
    return Math.floor(this.row.base_desk + (this.realNow() - this.row.base_real) * this.row.speed);
  }

  get speed(): number {
    return this.row.speed;
  }

  /** Moves the desk clock to a moment and lets it run at a speed from there. 0 stops it. */
  async set(desk: number, speed: number): Promise<void> {
    this.moved++;
    this.row = { base_real: this.realNow(), base_desk: desk, speed };
    await this.sql.run('UPDATE desk_clock SET base_real = ?, base_desk = ?, speed = ?, rev = rev + 1 WHERE id = 1', [
      this.row.base_real,
      desk,
      speed,
    ]);
    this.moved++;
  }
}
