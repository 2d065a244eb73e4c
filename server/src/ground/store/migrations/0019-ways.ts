import type { MigrationInterface, QueryRunner } from 'typeorm';

/**
 * What a way to a blog needs beyond an address and a secret; what a blog itself calls a post, what it was seen to say, what
 * somebody else made of it there, and when it is looked at again.
 */
export class Ways1765800000000 implements MigrationInterface {
  readonly name = 'Ways1765800000000';

  async up(q: QueryRunner): Promise<void> {
    await q.query("ALTER TABLE blog ADD settings JSON NOT NULL DEFAULT '{}', ADD categories JSON NULL");
    await q.query(
      "ALTER TABLE publication ADD handle VARCHAR(700) NULL, ADD author VARCHAR(200) NULL, ADD seen CHAR(64) CHARACTER SET ascii COLLATE ascii_bin NULL, ADD outside JSON NULL, ADD outside_at VARCHAR(30) CHARACTER SET ascii COLLATE ascii_bin AS (JSON_VALUE(outside, '$.at')) PERSISTENT, ADD compare_at DATETIME(3) NULL, ADD KEY publication_compare (state, compare_at), ADD KEY publication_outside (outside_at)",
    );
    await q.query("UPDATE publication SET compare_at = UTC_TIMESTAMP(3) WHERE state = 'live'");
  }

  async down(q: QueryRunner): Promise<void> {
    await q.query(
      'ALTER TABLE publication DROP KEY publication_outside, DROP outside_at, DROP KEY publication_compare, DROP compare_at, DROP outside, DROP author, DROP handle, DROP seen',
    );
    await q.query('ALTER TABLE blog DROP settings, DROP categories');
  }
}
