import type { MigrationInterface, QueryRunner } from 'typeorm';

const ID = 'CHAR(20) CHARACTER SET ascii COLLATE ascii_bin';

/** What becomes of people, sessions and keys; how often a step lost its worker; keys for what is looked up by them. */
export class People1765000000000 implements MigrationInterface {
  readonly name = 'People1765000000000';

  async up(q: QueryRunner): Promise<void> {
    await q.query('ALTER TABLE person ADD removed_at DATETIME(3) NULL');
    await q.query(
      `ALTER TABLE session ADD id ${ID} NULL, ADD seen_at DATETIME(3) NULL, ADD from_address VARCHAR(64) NOT NULL DEFAULT '', ADD agent VARCHAR(200) NOT NULL DEFAULT ''`,
    );
    // Sessions from before have been used just now, as far as anybody knows; their own digest tells them apart.
    await q.query('UPDATE session SET id = SUBSTR(token, 1, 20), seen_at = UTC_TIMESTAMP(3)');
    await q.query(
      `ALTER TABLE session MODIFY id ${ID} NOT NULL, MODIFY seen_at DATETIME(3) NOT NULL, ADD UNIQUE KEY session_id (id)`,
    );
    await q.query('ALTER TABLE access_key ADD ends_at DATETIME(3) NULL');
    await q.query(
      `CREATE TABLE act (id ${ID} NOT NULL PRIMARY KEY, at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3), person ${ID} NULL, name VARCHAR(120) NOT NULL, what VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL, about VARCHAR(300) NOT NULL, from_address VARCHAR(64) NOT NULL) ENGINE=InnoDB`,
    );
    await q.query('ALTER TABLE step_run ADD lost TINYINT NOT NULL DEFAULT 0');
    await q.query('ALTER TABLE ledger ADD KEY ledger_step (step_run)');
    await q.query('ALTER TABLE taken ADD KEY taken_item (item)');
    await q.query('ALTER TABLE brief_item ADD KEY brief_item_item (item)');
    await q.query('ALTER TABLE hook_call ADD run_at BIGINT NULL, ADD KEY hook_call_run (run_at)');
  }

  async down(q: QueryRunner): Promise<void> {
    await q.query('ALTER TABLE hook_call DROP KEY hook_call_run, DROP run_at');
    await q.query('ALTER TABLE brief_item DROP KEY brief_item_item');
    await q.query('ALTER TABLE taken DROP KEY taken_item');
    await q.query('ALTER TABLE ledger DROP KEY ledger_step');
    await q.query('ALTER TABLE step_run DROP lost');
    await q.query('DROP TABLE act');
    await q.query('ALTER TABLE access_key DROP ends_at');
    await q.query('ALTER TABLE session DROP KEY session_id, DROP id, DROP seen_at, DROP from_address, DROP agent');
    await q.query('ALTER TABLE person DROP removed_at');
  }
}
