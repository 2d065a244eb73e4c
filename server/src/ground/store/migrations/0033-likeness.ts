import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Articles are held against three more measures, so all of them are looked over once more. */
export class Likeness1767200000000 implements MigrationInterface {
  readonly name = 'Likeness1767200000000';

  async up(q: QueryRunner): Promise<void> {
    await q.query('UPDATE article SET glanced = NULL');
  }

  async down(): Promise<void> {
    // What is noted of them stays right for fewer measures.
  }
}
