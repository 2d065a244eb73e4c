import type { MigrationInterface, QueryRunner } from 'typeorm';

const ID = 'CHAR(20) CHARACTER SET ascii COLLATE ascii_bin';
const TABLE = 'ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci';

/** What people say of an article, at one of its blocks. */
export class Comments1765700000000 implements MigrationInterface {
  readonly name = 'Comments1765700000000';

  async up(q: QueryRunner): Promise<void> {
    await q.query(
      `CREATE TABLE comment (id ${ID} NOT NULL PRIMARY KEY, article ${ID} NOT NULL, block VARCHAR(60) CHARACTER SET ascii COLLATE ascii_bin NOT NULL, by_person ${ID} NOT NULL, words VARCHAR(2000) NOT NULL,
        done TINYINT NOT NULL DEFAULT 0, created_at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3), KEY comment_article (article, id)) ${TABLE}`,
    );
  }

  async down(q: QueryRunner): Promise<void> {
    await q.query('DROP TABLE comment');
  }
}
