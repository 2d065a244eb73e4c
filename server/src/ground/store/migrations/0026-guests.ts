import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Who reads an article at an address of its own may say something of it, where that was allowed; by a name they give. */
export class Guests1766500000000 implements MigrationInterface {
  readonly name = 'Guests1766500000000';

  async up(q: QueryRunner): Promise<void> {
    await q.query('ALTER TABLE share ADD comments TINYINT NOT NULL DEFAULT 0');
    await q.query(
      `ALTER TABLE comment ADD guest VARCHAR(80) NULL,
        MODIFY by_person CHAR(20) CHARACTER SET ascii COLLATE ascii_bin NULL`,
    );
  }

  async down(q: QueryRunner): Promise<void> {
    await q.query('DELETE FROM comment WHERE by_person IS NULL');
    await q.query(
      'ALTER TABLE comment DROP guest, MODIFY by_person CHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL',
    );
    await q.query('ALTER TABLE share DROP comments');
  }
}
