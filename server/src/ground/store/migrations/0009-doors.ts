import type { MigrationInterface, QueryRunner } from 'typeorm';

const ID = 'CHAR(20) CHARACTER SET ascii COLLATE ascii_bin';
const DIGEST = 'CHAR(64) CHARACTER SET ascii COLLATE ascii_bin';

/**
 * Doors other programs come in by: hooks with what each call became, keys to the API, and feeds that push. Of addresses
 * and keys only digests are kept; secrets are derived.
 */
export class Doors1764800000000 implements MigrationInterface {
  readonly name = 'Doors1764800000000';

  async up(q: QueryRunner): Promise<void> {
    await q.query(
      `CREATE TABLE hook (source ${ID} NOT NULL PRIMARY KEY, n INT NOT NULL DEFAULT 1, token ${DIGEST} NOT NULL, UNIQUE KEY hook_token (token)) ENGINE=InnoDB`,
    );
    await q.query(
      `CREATE TABLE hook_call (source ${ID} NOT NULL, key_ VARCHAR(100) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL, body ${DIGEST} NOT NULL, item ${ID} NULL, briefs JSON NULL, at_desk BIGINT NOT NULL,
       PRIMARY KEY (source, key_), KEY hook_call_at (source, at_desk)) ENGINE=InnoDB`,
    );
    await q.query(
      `CREATE TABLE access_key (id ${ID} NOT NULL PRIMARY KEY, name VARCHAR(120) NOT NULL, scope VARCHAR(16) CHARACTER SET ascii COLLATE ascii_bin NOT NULL, token ${DIGEST} NOT NULL, person ${ID} NOT NULL,
       used_at DATETIME(3) NULL, revoked_at DATETIME(3) NULL, made_at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3), UNIQUE KEY access_key_token (token)) ENGINE=InnoDB`,
    );
    await q.query(
      `CREATE TABLE subscription (source ${ID} NOT NULL, topic VARCHAR(500) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL, hub VARCHAR(500) NOT NULL, token ${DIGEST} NOT NULL, asked_at DATETIME(3) NOT NULL,
       until_at DATETIME(3) NULL, PRIMARY KEY (source, topic), UNIQUE KEY subscription_token (token)) ENGINE=InnoDB`,
    );
  }

  async down(q: QueryRunner): Promise<void> {
    await q.query('DROP TABLE subscription, access_key, hook_call, hook');
  }
}
