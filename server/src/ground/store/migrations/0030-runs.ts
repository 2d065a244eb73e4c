import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Numbers of runs of words by which an article that repeats others of ours is found. */
export class Runs1766900000000 implements MigrationInterface {
  readonly name = 'Runs1766900000000';

  async up(q: QueryRunner): Promise<void> {
    const id = 'CHAR(20) CHARACTER SET ascii COLLATE ascii_bin';
    await q.query(
      `CREATE TABLE article_run (number INT UNSIGNED NOT NULL, article ${id} NOT NULL, PRIMARY KEY (number, article), KEY run_article (article)) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci`,
    );
    // Articles there are get theirs when they are looked at again, some at a time.
    await q.query('UPDATE article SET glanced = NULL');
  }

  async down(q: QueryRunner): Promise<void> {
    await q.query('DROP TABLE article_run');
  }
}
