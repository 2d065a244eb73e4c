import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Whom a blog's news are told to, what of it is still to be told, and the addresses its list of articles is read at. */
export class Pings1766800000000 implements MigrationInterface {
  readonly name = 'Pings1766800000000';

  async up(q: QueryRunner): Promise<void> {
    const id = 'CHAR(20) CHARACTER SET ascii COLLATE ascii_bin';
    const code = (length: number) => `VARCHAR(${length}) CHARACTER SET ascii COLLATE ascii_bin`;
    const table = 'ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci';
    await q.query(
      `CREATE TABLE blog_pings (blog ${id} NOT NULL PRIMARY KEY, search VARCHAR(500) NOT NULL DEFAULT '', code ${code(64)} NOT NULL,
        hub VARCHAR(500) NOT NULL DEFAULT '', feed VARCHAR(500) NOT NULL DEFAULT '', list_n INT NOT NULL DEFAULT 0, list_token ${code(64)} NULL,
        UNIQUE KEY pings_list (list_token)) ${table}`,
    );
    await q.query('ALTER TABLE publication ADD KEY publication_newest (blog, state, out_desk)');
    await q.query(
      `CREATE TABLE ping (publication ${id} NOT NULL, kind ${code(8)} NOT NULL, blog ${id} NOT NULL, address VARCHAR(1000) NOT NULL,
        state ${code(8)} NOT NULL, tries INT NOT NULL DEFAULT 0, due_at DATETIME(3) NOT NULL, told_at DATETIME(3) NULL, said VARCHAR(300) NOT NULL DEFAULT '',
        PRIMARY KEY (publication, kind), KEY ping_due (state, due_at), KEY ping_blog (blog, kind, state, told_at)) ${table}`,
    );
  }

  async down(q: QueryRunner): Promise<void> {
    await q.query('ALTER TABLE publication DROP KEY publication_newest');
    await q.query('DROP TABLE ping');
    await q.query('DROP TABLE blog_pings');
  }
}
