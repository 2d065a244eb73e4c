import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Who has an article open, on which page of a browser, and where they are in it. */
export class Presence1766400000000 implements MigrationInterface {
  readonly name = 'Presence1766400000000';

  async up(q: QueryRunner): Promise<void> {
    await q.query(
      `CREATE TABLE presence (
        article CHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
        page VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
        person CHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
        block VARCHAR(60) CHARACTER SET ascii COLLATE ascii_bin NULL,
        editing TINYINT NOT NULL,
        seen_at DATETIME(3) NOT NULL,
        PRIMARY KEY (article, page)
      )`,
    );
  }

  async down(q: QueryRunner): Promise<void> {
    await q.query('DROP TABLE presence');
  }
}
