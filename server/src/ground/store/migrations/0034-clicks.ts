import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Clicks on links of articles by day, and posts that are to be sent anew as they would be sent now. */
export class Clicks1767300000000 implements MigrationInterface {
  readonly name = 'Clicks1767300000000';

  async up(q: QueryRunner): Promise<void> {
    await q.query(
      `CREATE TABLE click (
         publication CHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
         day DATE NOT NULL,
         link CHAR(64) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
         address VARCHAR(2000) NOT NULL,
         times INT NOT NULL,
         PRIMARY KEY (publication, day, link)
       )`,
    );
    await q.query('ALTER TABLE publication ADD anew_at DATETIME(3), ADD KEY publication_anew (anew_at)');
  }

  async down(q: QueryRunner): Promise<void> {
    await q.query('ALTER TABLE publication DROP KEY publication_anew, DROP anew_at');
    await q.query('DROP TABLE click');
  }
}
