import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Whether an article was changed since its blog got it: 1 not looked at yet, 2 left for a person. */
export class Behind1767000000000 implements MigrationInterface {
  readonly name = 'Behind1767000000000';

  async up(q: QueryRunner): Promise<void> {
    await q.query(
      'ALTER TABLE publication ADD behind TINYINT NOT NULL DEFAULT 0, ADD KEY publication_behind (behind, blog)',
    );
    await q.query(
      "UPDATE publication p JOIN article a ON a.id = p.article SET p.behind = 2 WHERE p.state = 'live' AND a.current <> p.revision",
    );
  }

  async down(q: QueryRunner): Promise<void> {
    await q.query('ALTER TABLE publication DROP KEY publication_behind, DROP behind');
  }
}
