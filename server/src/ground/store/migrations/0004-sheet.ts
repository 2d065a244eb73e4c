import type { MigrationInterface, QueryRunner } from 'typeorm';

/** A pipeline's briefs, newest first: without this index a page of a small pipeline beside large ones reads them all. */
export class Sheet1764300000000 implements MigrationInterface {
  readonly name = 'Sheet1764300000000';

  async up(q: QueryRunner): Promise<void> {
    await q.query('ALTER TABLE brief ADD KEY brief_of_pipeline (pipeline, trial, id)');
  }

  async down(q: QueryRunner): Promise<void> {
    await q.query('ALTER TABLE brief DROP KEY brief_of_pipeline');
  }
}
