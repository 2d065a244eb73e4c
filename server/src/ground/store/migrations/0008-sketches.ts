import type { MigrationInterface, QueryRunner } from 'typeorm';

/**
 * Sketches of texts that were found at sources or published, by which near repeats are known: the hashes of each, and its
 * bands, which find it among many.
 */
export class Sketches1764700000000 implements MigrationInterface {
  readonly name = 'Sketches1764700000000';

  async up(q: QueryRunner): Promise<void> {
    const id = 'CHAR(20) CHARACTER SET ascii COLLATE ascii_bin';
    await q.query(
      `CREATE TABLE sketch (of ${id} NOT NULL, what VARCHAR(8) CHARACTER SET ascii COLLATE ascii_bin NOT NULL, hashes VARBINARY(512) NOT NULL, PRIMARY KEY (of, what)) ENGINE=InnoDB`,
    );
    await q.query(
      `CREATE TABLE sketch_band (band BIGINT UNSIGNED NOT NULL, of ${id} NOT NULL, PRIMARY KEY (band, of), KEY sketch_band_of (of)) ENGINE=InnoDB`,
    );
  }

  async down(q: QueryRunner): Promise<void> {
    await q.query('DROP TABLE sketch_band, sketch');
  }
}
