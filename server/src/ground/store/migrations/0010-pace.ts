import type { MigrationInterface, QueryRunner } from 'typeorm';

/** How often a service may be called, and how long a brief may be in work. */
export class Pace1764900000000 implements MigrationInterface {
  readonly name = 'Pace1764900000000';

  async up(q: QueryRunner): Promise<void> {
    await q.query('ALTER TABLE service ADD calls_a_minute INT NULL');
    await q.query(
      `CREATE TABLE service_turn (service CHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY, next_at DATETIME(6) NOT NULL) ENGINE=InnoDB`,
    );
    await q.query('ALTER TABLE pipeline ADD most_minutes INT NULL');
    // By the database's clock, as every time of the work itself: since it was let in, or let go on.
    await q.query('ALTER TABLE brief ADD in_work_since DATETIME(3) NULL');
  }

  async down(q: QueryRunner): Promise<void> {
    await q.query('ALTER TABLE brief DROP in_work_since');
    await q.query('ALTER TABLE pipeline DROP most_minutes');
    await q.query('DROP TABLE service_turn');
    await q.query('ALTER TABLE service DROP calls_a_minute');
  }
}
