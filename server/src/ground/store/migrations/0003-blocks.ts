import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Holds, routines, inputs: briefs by how they stand, pins of routines besides the procedure, routines by name. */
export class Blocks1764200000000 implements MigrationInterface {
  readonly name = 'Blocks1764200000000';

  async up(q: QueryRunner): Promise<void> {
    const id = 'CHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL';
    await q.query(
      'ALTER TABLE brief ADD COLUMN by_hand TINYINT NOT NULL DEFAULT 0, ADD KEY brief_by_standing (standing, trial, id)',
    );
    // Whether the service answered well since, though nobody has said that all may go on.
    await q.query('ALTER TABLE incident ADD COLUMN well TINYINT NOT NULL DEFAULT 0');
    // When a person was first asked, by the desk clock.
    await q.query('ALTER TABLE output ADD COLUMN held_at DATETIME(3) NULL');
    await q.query('ALTER TABLE brief_pin ADD COLUMN main TINYINT NOT NULL DEFAULT 1');
    const ascii = (n: number) => `VARCHAR(${n}) CHARACTER SET ascii COLLATE ascii_bin`;
    await q.query(`ALTER TABLE limit_window MODIFY COLUMN start ${ascii(24)} NOT NULL`);
    // The windows of an open question in one text, before the column of one window goes.
    await q.query(`ALTER TABLE answer MODIFY COLUMN scope ${ascii(120)} NULL`);
    await q.query("UPDATE answer SET scope = CONCAT(scope, '=', start) WHERE scope IS NOT NULL");
    await q.query(
      'ALTER TABLE answer CHANGE COLUMN scope windows VARCHAR(120) CHARACTER SET ascii COLLATE ascii_bin NULL, DROP COLUMN start',
    );
    await q.query(`CREATE TABLE routine (id ${id} PRIMARY KEY, name VARCHAR(120) NOT NULL, procedure_id ${id}, version INT NOT NULL, rev INT NOT NULL DEFAULT 1,
      created_at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3), UNIQUE KEY routine_name (name)) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci`);
  }

  async down(): Promise<void> {
    throw new Error('Routines and limits would be lost; restore a backup instead.');
  }
}
