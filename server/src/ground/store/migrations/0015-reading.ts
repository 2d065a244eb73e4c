import type { MigrationInterface, QueryRunner } from 'typeorm';

const ID = 'CHAR(20) CHARACTER SET ascii COLLATE ascii_bin';

/** What lists are read by, so that none of them goes through a whole table. */
export class Reading1765400000000 implements MigrationInterface {
  readonly name = 'Reading1765400000000';

  async up(q: QueryRunner): Promise<void> {
    await q.query(`ALTER TABLE publication ADD pipeline ${ID} NULL`);
    await q.query(
      'UPDATE publication p JOIN article a ON a.id = p.article JOIN brief b ON b.id = a.brief SET p.pipeline = b.pipeline',
    );
    await q.query(
      'ALTER TABLE publication ADD KEY publication_out (state, out_desk), ADD KEY publication_pipeline (pipeline, state, out_desk), ADD KEY publication_of_blog (blog, state)',
    );
    await q.query(`ALTER TABLE taken ADD source ${ID} NULL`);
    await q.query('UPDATE taken t JOIN item i ON i.id = t.item SET t.source = i.source');
    await q.query('ALTER TABLE taken ADD KEY taken_source (source, item)');
    await q.query('ALTER TABLE placement ADD KEY placement_at (due_desk)');
  }

  async down(q: QueryRunner): Promise<void> {
    await q.query('ALTER TABLE placement DROP KEY placement_at');
    await q.query('ALTER TABLE taken DROP KEY taken_source, DROP source');
    await q.query(
      'ALTER TABLE publication DROP KEY publication_of_blog, DROP KEY publication_pipeline, DROP KEY publication_out, DROP pipeline',
    );
  }
}
