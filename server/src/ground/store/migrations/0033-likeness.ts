import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Articles are held against three more measures and found by what they cost, so all of them are looked over once more. */
export class Likeness1767200000000 implements MigrationInterface {
  readonly name = 'Likeness1767200000000';

  async up(q: QueryRunner): Promise<void> {
    await q.query(
      'ALTER TABLE article_glance ADD micros BIGINT NOT NULL DEFAULT 0, ADD KEY article_glance_micros (micros)',
    );
    await q.query('UPDATE article SET glanced = NULL');
  }

  async down(q: QueryRunner): Promise<void> {
    // What else is noted of them stays right for fewer measures.
    await q.query('ALTER TABLE article_glance DROP KEY article_glance_micros, DROP COLUMN micros');
  }
}
