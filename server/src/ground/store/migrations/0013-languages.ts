import type { MigrationInterface, QueryRunner } from 'typeorm';

const COLUMNS = [
  ['blog', "VARCHAR(35) NOT NULL DEFAULT 'en'", "CHAR(2) NOT NULL DEFAULT 'en'"],
  ['article', 'VARCHAR(35) NOT NULL', 'CHAR(2) NOT NULL'],
  ['material', 'VARCHAR(35) NOT NULL', 'CHAR(2) NOT NULL'],
] as const;

/** Languages as BCP 47 has them: `pt-BR` and `zh-Hant`, not only two letters. */
export class Languages1765200000000 implements MigrationInterface {
  readonly name = 'Languages1765200000000';

  async up(q: QueryRunner): Promise<void> {
    for (const [table, now] of COLUMNS) await q.query(`ALTER TABLE ${table} MODIFY language ${now}`);
  }

  async down(q: QueryRunner): Promise<void> {
    for (const [table, , before] of COLUMNS) await q.query(`ALTER TABLE ${table} MODIFY language ${before}`);
  }
}
