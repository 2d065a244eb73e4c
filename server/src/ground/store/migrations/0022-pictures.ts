import type { MigrationInterface, QueryRunner } from 'typeorm';

/** The library of pictures: what each shows, where it is from, what it cost, and which articles have it. */
export class Pictures1766100000000 implements MigrationInterface {
  readonly name = 'Pictures1766100000000';

  async up(q: QueryRunner): Promise<void> {
    await q.query(
      `CREATE TABLE picture (
        file CHAR(64) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
        kind VARCHAR(8) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
        words VARCHAR(500) NOT NULL,
        credit VARCHAR(300) NOT NULL DEFAULT '',
        origin VARCHAR(1000) NOT NULL DEFAULT '',
        cost BIGINT NOT NULL DEFAULT 0,
        look CHAR(16) CHARACTER SET ascii COLLATE ascii_bin NULL,
        made_at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3),
        rev INT NOT NULL DEFAULT 1,
        KEY picture_made (made_at, file),
        KEY picture_kind (kind, made_at, file)
      )`,
    );
    await q.query(
      `CREATE TABLE picture_use (
        file CHAR(64) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
        article CHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
        is_lead TINYINT NOT NULL,
        PRIMARY KEY (file, article),
        KEY picture_use_article (article)
      )`,
    );
    await q.query(
      `ALTER TABLE article ADD pictured CHAR(20) CHARACTER SET ascii COLLATE ascii_bin NULL,
        ADD pictures_due TINYINT AS (NOT (pictured <=> current)) STORED, ADD KEY article_pictures_due (pictures_due)`,
    );
  }

  async down(q: QueryRunner): Promise<void> {
    await q.query('ALTER TABLE article DROP KEY article_pictures_due, DROP pictures_due, DROP pictured');
    await q.query('DROP TABLE picture_use');
    await q.query('DROP TABLE picture');
  }
}
