import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Waiting briefs are let in by priority and age: without it in the index every admission sorted all that wait. */
export class Waiting1764100000000 implements MigrationInterface {
  readonly name = 'Waiting1764100000000';

  async up(q: QueryRunner): Promise<void> {
    await q.query(
      'ALTER TABLE brief DROP KEY brief_standing, ADD KEY brief_standing (pipeline, trial, standing, priority, id)',
    );
  }

  async down(q: QueryRunner): Promise<void> {
    await q.query('ALTER TABLE brief DROP KEY brief_standing, ADD KEY brief_standing (pipeline, trial, standing, id)');
  }
}
