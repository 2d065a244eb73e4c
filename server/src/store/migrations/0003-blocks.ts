import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Holds, routines, inputs: briefs by how they stand, pins of routines besides the procedure, routines by name. */
export class Blocks1764200000000 implements MigrationInterface {
  readonly name = 'Blocks1764200000000';

  async up(q: QueryRunner): Promise<void> {
    const id = 'CHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL';
    await q.query(
      'ALTER TABLE brief ADD COLUMN by_hand TINYINT NOT NULL DEFAULT 0, ADD KEY brief_by_standing (standing, trial, id)',
    );
    await q.query('ALTER TABLE brief_pin ADD COLUMN main TINYINT NOT NULL DEFAULT 1');
    await q.query(`CREATE TABLE routine (id ${id} PRIMARY KEY, name VARCHAR(120) NOT NULL, procedure_id ${id}, version INT NOT NULL, rev INT NOT NULL DEFAULT 1,
      created_at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3), UNIQUE KEY routine_name (name)) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci`);
  }

  async down(q: QueryRunner): Promise<void> {
    await q.query('DROP TABLE routine');
    await q.query('DELETE FROM brief_pin WHERE main = 0');
    await q.query('ALTER TABLE brief_pin DROP COLUMN main');
    await q.query('ALTER TABLE brief DROP KEY brief_by_standing, DROP COLUMN by_hand');
  }
}
