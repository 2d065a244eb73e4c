import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What a month cost is summed from one key, without a look at the rows it stands for. */
export class LedgerMonth1767700000000 implements MigrationInterface {
  readonly name = 'LedgerMonth1767700000000';

  async up(q: QueryRunner): Promise<void> {
    await q.query(
      'ALTER TABLE ledger ADD KEY ledger_month (at_desk, micros, step_run, brief, pipeline), DROP KEY ledger_at',
    );
  }

  async down(q: QueryRunner): Promise<void> {
    await q.query('ALTER TABLE ledger ADD KEY ledger_at (at_desk), DROP KEY ledger_month');
  }
}
