import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Pictures by where they were found, so that one of a library stands in one article. */
export class PictureOrigins1766200000000 implements MigrationInterface {
  readonly name = 'PictureOrigins1766200000000';

  async up(q: QueryRunner): Promise<void> {
    await q.query('ALTER TABLE picture ADD KEY picture_origin (origin(191))');
  }

  async down(q: QueryRunner): Promise<void> {
    await q.query('ALTER TABLE picture DROP KEY picture_origin');
  }
}
