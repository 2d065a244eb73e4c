import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What came of a blog's last test; briefs a person has seen set aside; what is kept but not used any more. */
export class Mending1765100000000 implements MigrationInterface {
  readonly name = 'Mending1765100000000';

  async up(q: QueryRunner): Promise<void> {
    await q.query(
      "ALTER TABLE blog ADD last_test JSON NULL, ADD tested_desk BIGINT NULL, ADD archived TINYINT NOT NULL DEFAULT 0, ADD note VARCHAR(300) NOT NULL DEFAULT ''",
    );
    await q.query('ALTER TABLE brief ADD seen TINYINT NOT NULL DEFAULT 0');
    for (const noun of ['source', 'pipeline'])
      await q.query(
        `ALTER TABLE ${noun} ADD archived TINYINT NOT NULL DEFAULT 0, ADD note VARCHAR(300) NOT NULL DEFAULT ''`,
      );
  }

  async down(q: QueryRunner): Promise<void> {
    for (const noun of ['pipeline', 'source']) await q.query(`ALTER TABLE ${noun} DROP archived, DROP note`);
    await q.query('ALTER TABLE brief DROP seen');
    await q.query('ALTER TABLE blog DROP last_test, DROP tested_desk, DROP archived, DROP note');
  }
}
