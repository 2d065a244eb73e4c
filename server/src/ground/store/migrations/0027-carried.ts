import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What a post carries besides its text, and the moment it is dated for while a blog keeps it until then. */
export class Carried1766600000000 implements MigrationInterface {
  readonly name = 'Carried1766600000000';

  async up(q: QueryRunner): Promise<void> {
    await q.query(
      'ALTER TABLE publication ADD carried JSON NULL, ADD dated_desk BIGINT NULL, ADD dating TINYINT NOT NULL DEFAULT 0, ADD KEY publication_dating (dating), ADD KEY publication_author (blog, author)',
    );
  }

  async down(q: QueryRunner): Promise<void> {
    await q.query(
      'ALTER TABLE publication DROP KEY publication_author, DROP KEY publication_dating, DROP carried, DROP dated_desk, DROP dating',
    );
  }
}
