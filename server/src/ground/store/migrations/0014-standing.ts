import type { MigrationInterface, QueryRunner } from 'typeorm';

const CODE = 'VARCHAR(12) CHARACTER SET ascii COLLATE ascii_bin';
const ID = 'CHAR(20) CHARACTER SET ascii COLLATE ascii_bin';
const STANDING =
  "CASE WHEN out_as = 'live' THEN 'out' WHEN out_as IS NOT NULL THEN out_as WHEN aside = 1 THEN 'set aside' WHEN slot = 1 THEN 'ready' ELSE 'in work' END";

/**
 * What an article is follows from what is known of it; what is done with an article on a blog has editions; a blog says
 * which way posts go there.
 */
export class Standing1765300000000 implements MigrationInterface {
  readonly name = 'Standing1765300000000';

  async up(q: QueryRunner): Promise<void> {
    await q.query(
      `ALTER TABLE article ADD out_as ${CODE} NULL, ADD aside TINYINT NOT NULL DEFAULT 0, ADD slot TINYINT NOT NULL DEFAULT 0`,
    );
    await q.query(
      `UPDATE article a SET aside = a.standing = 'set aside', slot = a.standing = 'ready',
         out_as = IF(a.standing = 'out', COALESCE((SELECT p.state FROM publication p WHERE p.article = a.id AND p.state IN ('live', 'draft', 'withdrawn')
           ORDER BY FIELD(p.state, 'live', 'draft', 'withdrawn') LIMIT 1), 'live'), NULL)`,
    );
    await q.query('ALTER TABLE article DROP KEY article_blog, DROP standing');
    await q.query(
      `ALTER TABLE article ADD standing ${CODE} AS (${STANDING}) STORED, ADD KEY article_blog (blog, standing, id), ADD KEY article_standing (trial, standing, id)`,
    );
    await q.query(
      `ALTER TABLE publication ADD edition INT NOT NULL DEFAULT 1, ADD act ${CODE} NOT NULL DEFAULT 'publish', ADD wanted ${ID} NULL, ADD categories JSON NULL`,
    );
    await q.query("UPDATE intent SET key_ = CONCAT(key_, '/1') WHERE kind IN ('create', 'turn live')");
    await q.query(
      "ALTER TABLE blog ADD way VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT 'micropub'",
    );
  }

  async down(q: QueryRunner): Promise<void> {
    await q.query('ALTER TABLE blog DROP way');
    await q.query("UPDATE intent SET key_ = LEFT(key_, LENGTH(key_) - 2) WHERE kind IN ('create', 'turn live')");
    await q.query('ALTER TABLE publication DROP edition, DROP act, DROP wanted, DROP categories');
    await q.query(`ALTER TABLE article DROP KEY article_standing, DROP KEY article_blog, ADD before_ ${CODE} NULL`);
    await q.query("UPDATE article SET before_ = IF(standing IN ('draft', 'withdrawn'), 'out', standing)");
    await q.query('ALTER TABLE article DROP standing, DROP out_as, DROP aside, DROP slot');
    await q.query(
      `ALTER TABLE article CHANGE before_ standing ${CODE} NOT NULL, ADD KEY article_blog (blog, standing, id)`,
    );
  }
}
