import type { MigrationInterface, QueryRunner } from 'typeorm';

/**
 * What a list shows of an article and finds it by, noted from its newest revision: its words, in their order and as an index
 * by word, and the measures that are out of range as bits and in figures. Lists of a person's own, by name.
 */
export class Glance1766300000000 implements MigrationInterface {
  readonly name = 'Glance1766300000000';

  async up(q: QueryRunner): Promise<void> {
    await q.query(
      `CREATE TABLE article_glance (
        article CHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
        revision CHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
        marks INT NOT NULL,
        out_of_range JSON NOT NULL,
        words MEDIUMTEXT CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL
      )`,
    );
    await q.query(
      `CREATE TABLE article_word (
        word VARCHAR(64) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL,
        article CHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
        PRIMARY KEY (word, article)
      )`,
    );
    await q.query(
      `ALTER TABLE article ADD glanced CHAR(20) CHARACTER SET ascii COLLATE ascii_bin NULL,
        ADD glance_due TINYINT AS (trial = 0 AND NOT (glanced <=> current)) STORED, ADD KEY article_glance_due (glance_due)`,
    );
    await q.query(
      `CREATE TABLE kept_list (
        id CHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
        person CHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
        name VARCHAR(120) NOT NULL,
        wanted VARCHAR(1000) NOT NULL,
        UNIQUE KEY kept_list_name (person, name)
      )`,
    );
  }

  async down(q: QueryRunner): Promise<void> {
    await q.query('DROP TABLE kept_list');
    await q.query('ALTER TABLE article DROP KEY article_glance_due, DROP glance_due, DROP glanced');
    await q.query('DROP TABLE article_word');
    await q.query('DROP TABLE article_glance');
  }
}
