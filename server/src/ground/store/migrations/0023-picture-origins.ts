import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Pictures by where they were found, so that one of a library stands in one article, and by what is said of them, so that no two say the same. */
export class PictureOrigins1766200000000 implements MigrationInterface {
  readonly name = 'PictureOrigins1766200000000';

  async up(q: QueryRunner): Promise<void> {
    await q.query('ALTER TABLE picture ADD KEY picture_origin (origin(191)), ADD KEY picture_words (words(120))');
  }

  async down(q: QueryRunner): Promise<void> {
    await q.query('ALTER TABLE picture DROP KEY picture_origin, DROP KEY picture_words');
  }
}
