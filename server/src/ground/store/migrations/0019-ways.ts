import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What a way to a blog needs beyond an address and a secret, and what a blog itself calls a post. */
export class Ways1765800000000 implements MigrationInterface {
  readonly name = 'Ways1765800000000';

  async up(q: QueryRunner): Promise<void> {
    await q.query("ALTER TABLE blog ADD settings JSON NOT NULL DEFAULT '{}', ADD categories JSON NULL");
    await q.query('ALTER TABLE publication ADD handle VARCHAR(700) NULL, ADD seen JSON NULL');
  }

  async down(q: QueryRunner): Promise<void> {
    await q.query('ALTER TABLE publication DROP handle, DROP seen');
    await q.query('ALTER TABLE blog DROP settings, DROP categories');
  }
}
