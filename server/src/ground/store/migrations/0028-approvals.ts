import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Approvals that were begun at a blog and are waited for. */
export class Approvals1766700000000 implements MigrationInterface {
  readonly name = 'Approvals1766700000000';

  async up(q: QueryRunner): Promise<void> {
    const id = 'CHAR(20) CHARACTER SET ascii COLLATE ascii_bin';
    await q.query(
      `CREATE TABLE approval (state CHAR(64) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY, person ${id} NOT NULL,
        asked JSON NOT NULL, kept VARBINARY(4000) NOT NULL, made_at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3),
        KEY approval_made (made_at)) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci`,
    );
  }

  async down(q: QueryRunner): Promise<void> {
    await q.query('DROP TABLE approval');
  }
}
