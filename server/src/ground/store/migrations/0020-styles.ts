import type { MigrationInterface, QueryRunner } from 'typeorm';

/** House styles with their versions and the texts they were learnt from; the one a blog keeps to. */
export class Styles1765900000000 implements MigrationInterface {
  readonly name = 'Styles1765900000000';

  async up(q: QueryRunner): Promise<void> {
    await q.query(
      `CREATE TABLE house_style (
        id CHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
        name VARCHAR(120) NOT NULL,
        note VARCHAR(300) NOT NULL DEFAULT '',
        version INT NOT NULL DEFAULT 1,
        sample JSON NULL,
        archived TINYINT NOT NULL DEFAULT 0,
        rev INT NOT NULL DEFAULT 1,
        created_at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3),
        UNIQUE KEY house_style_name (name)
      )`,
    );
    await q.query(
      `CREATE TABLE house_style_version (
        style CHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
        n INT NOT NULL,
        document JSON NOT NULL,
        by_person CHAR(20) CHARACTER SET ascii COLLATE ascii_bin NULL,
        made_desk BIGINT NOT NULL,
        PRIMARY KEY (style, n)
      )`,
    );
    await q.query(
      `CREATE TABLE house_style_text (
        id CHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
        style CHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
        name VARCHAR(300) NOT NULL,
        address VARCHAR(1000) NOT NULL DEFAULT '',
        language VARCHAR(35) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
        figures JSON NOT NULL,
        body MEDIUMTEXT NOT NULL,
        digest CHAR(64) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
        added_desk BIGINT NOT NULL,
        UNIQUE KEY house_style_text_once (style, digest)
      )`,
    );
    await q.query(
      'ALTER TABLE blog ADD style CHAR(20) CHARACTER SET ascii COLLATE ascii_bin NULL, ADD KEY blog_style (style)',
    );
  }

  async down(q: QueryRunner): Promise<void> {
    await q.query('ALTER TABLE blog DROP KEY blog_style, DROP style');
    await q.query('DROP TABLE house_style_text');
    await q.query('DROP TABLE house_style_version');
    await q.query('DROP TABLE house_style');
  }
}
