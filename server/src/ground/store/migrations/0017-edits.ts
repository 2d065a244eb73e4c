import type { MigrationInterface, QueryRunner } from 'typeorm';

const ID = 'CHAR(20) CHARACTER SET ascii COLLATE ascii_bin';

/** Articles changed by people: the revision their changes rest on, and which revisions were made at one sitting. */
export class Edits1765600000000 implements MigrationInterface {
  readonly name = 'Edits1765600000000';

  async up(q: QueryRunner): Promise<void> {
    await q.query(`ALTER TABLE article ADD COLUMN edited_from ${ID} NULL`);
    await q.query(
      'ALTER TABLE article_revision ADD COLUMN sitting VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NULL',
    );
  }

  async down(q: QueryRunner): Promise<void> {
    await q.query('ALTER TABLE article_revision DROP COLUMN sitting');
    await q.query('ALTER TABLE article DROP COLUMN edited_from');
  }
}
