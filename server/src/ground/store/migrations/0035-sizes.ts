import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Copies of pictures in other widths and forms; a width of -1 stands for copies that are still to be made, 0 for none that can be. */
export class Sizes1767400000000 implements MigrationInterface {
  readonly name = 'Sizes1767400000000';

  async up(q: QueryRunner): Promise<void> {
    await q.query(
      `CREATE TABLE picture_size (
         file CHAR(64) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
         form VARCHAR(4) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
         width INT NOT NULL,
         copy CHAR(64) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
         PRIMARY KEY (file, form, width),
         KEY picture_size_copy (copy),
         KEY picture_size_form (form, width)
       )`,
    );
  }

  async down(q: QueryRunner): Promise<void> {
    await q.query('DROP TABLE picture_size');
  }
}
