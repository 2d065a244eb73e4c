import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Of a phrase the addresses a search for it gives, so that phrases which one page answers are known as such. */
export class Results1764600000000 implements MigrationInterface {
  readonly name = 'Results1764600000000';

  async up(q: QueryRunner): Promise<void> {
    await q.query('ALTER TABLE item ADD results JSON NULL');
  }

  async down(q: QueryRunner): Promise<void> {
    await q.query('ALTER TABLE item DROP results');
  }
}
