import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Posts whose turn it is to be looked at are found blog by blog. */
export class Looks1767500000000 implements MigrationInterface {
  readonly name = 'Looks1767500000000';

  async up(q: QueryRunner): Promise<void> {
    await q.query(
      'ALTER TABLE publication ADD KEY publication_looks (blog, state, compare_at), DROP KEY publication_compare',
    );
  }

  async down(q: QueryRunner): Promise<void> {
    await q.query(
      'ALTER TABLE publication ADD KEY publication_compare (state, compare_at), DROP KEY publication_looks',
    );
  }
}
