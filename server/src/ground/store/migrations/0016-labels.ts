import type { MigrationInterface, QueryRunner } from 'typeorm';

const ID = 'CHAR(20) CHARACTER SET ascii COLLATE ascii_bin';
const CODE = (n: number) => `VARCHAR(${n}) CHARACTER SET ascii COLLATE ascii_bin`;
const TABLE = 'ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci';

/** Labels of clients and themes; places things are sent to, kept once; articles shared by an address of their own. */
export class Labels1765500000000 implements MigrationInterface {
  readonly name = 'Labels1765500000000';

  async up(q: QueryRunner): Promise<void> {
    await q.query(
      `CREATE TABLE label (id ${ID} NOT NULL PRIMARY KEY, name VARCHAR(120) NOT NULL, rev INT NOT NULL DEFAULT 1, created_at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3), UNIQUE KEY label_name (name)) ${TABLE}`,
    );
    await q.query(
      `CREATE TABLE labelled (noun ${CODE(16)} NOT NULL, of ${ID} NOT NULL, label ${ID} NOT NULL, PRIMARY KEY (noun, of, label), KEY labelled_by (label, noun, of)) ${TABLE}`,
    );
    await q.query(
      `CREATE TABLE destination (id ${ID} NOT NULL PRIMARY KEY, kind ${CODE(16)} NOT NULL, name VARCHAR(120) NOT NULL, address VARCHAR(1000) NOT NULL, note VARCHAR(300) NOT NULL DEFAULT '',
        last_test JSON NULL, tested_desk BIGINT NULL, rev INT NOT NULL DEFAULT 1, created_at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3), UNIQUE KEY destination_name (name)) ${TABLE}`,
    );
    await q.query(
      `CREATE TABLE share (id ${ID} NOT NULL PRIMARY KEY, article ${ID} NOT NULL, token CHAR(64) CHARACTER SET ascii COLLATE ascii_bin NOT NULL, n INT NOT NULL DEFAULT 1, by_person ${ID} NOT NULL,
        ends_desk BIGINT NULL, seen INT NOT NULL DEFAULT 0, created_at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3), UNIQUE KEY share_token (token), UNIQUE KEY share_article (article)) ${TABLE}`,
    );
  }

  async down(q: QueryRunner): Promise<void> {
    for (const table of ['share', 'destination', 'labelled', 'label']) await q.query(`DROP TABLE ${table}`);
  }
}
