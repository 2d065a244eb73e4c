import type { MigrationInterface, QueryRunner } from 'typeorm';

/**
 * Sources of every kind: how each is looked at, which of its items are left out and why, and the fingerprint a pipeline
 * knows an item by, kept with it so that a changed item can become a new one.
 */
export class Intake1764400000000 implements MigrationInterface {
  readonly name = 'Intake1764400000000';

  async up(q: QueryRunner): Promise<void> {
    await q.query(
      `ALTER TABLE source ADD settings JSON NULL, ADD looked_desk BIGINT NULL, ADD looking_until DATETIME(3) NULL, ADD looking_by CHAR(20) CHARACTER SET ascii COLLATE ascii_bin NULL, ADD looked_with CHAR(64) CHARACTER SET ascii COLLATE ascii_bin NULL, ADD failure JSON NULL`,
    );
    await q.query("UPDATE source SET settings = JSON_OBJECT('kind', kind)");
    await q.query(
      `ALTER TABLE item ADD fingerprint CHAR(64) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT '',
         ADD left_out VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NULL, ADD left_detail VARCHAR(300) NOT NULL DEFAULT '',
         ADD by_hand TINYINT NOT NULL DEFAULT 0, ADD gone TINYINT NOT NULL DEFAULT 0, ADD published_desk BIGINT NULL,
         ADD KEY item_offered (source, left_out, id)`,
    );
    await q.query(
      "UPDATE item SET fingerprint = CONVERT(SHA2(CONCAT(source, ':', identity), 256) USING ascii) COLLATE ascii_bin",
    );
    await q.query(
      `ALTER TABLE look MODIFY pipeline CHAR(20) CHARACTER SET ascii COLLATE ascii_bin NULL,
         ADD fresh INT NOT NULL DEFAULT 0, ADD changed INT NOT NULL DEFAULT 0, ADD left_out INT NOT NULL DEFAULT 0`,
    );
  }

  async down(q: QueryRunner): Promise<void> {
    await q.query('DELETE FROM look WHERE pipeline IS NULL');
    await q.query(
      `ALTER TABLE look MODIFY pipeline CHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL, DROP fresh, DROP changed, DROP left_out`,
    );
    await q.query(
      'ALTER TABLE item DROP KEY item_offered, DROP fingerprint, DROP left_out, DROP left_detail, DROP by_hand, DROP gone, DROP published_desk',
    );
    await q.query(
      'ALTER TABLE source DROP settings, DROP looked_desk, DROP looking_until, DROP looking_by, DROP looked_with, DROP failure',
    );
  }
}
