import type { MigrationInterface, QueryRunner } from 'typeorm';

const ID = 'CHAR(20) CHARACTER SET ascii COLLATE ascii_bin';
const SHA = 'CHAR(64) CHARACTER SET ascii COLLATE ascii_bin';

const TABLES = [
  `CREATE TABLE link_rule (
        id ${ID} NOT NULL PRIMARY KEY,
        blog ${ID} NULL,
        words VARCHAR(120) NOT NULL,
        address VARCHAR(1000) NOT NULL,
        most INT NOT NULL,
        placing VARCHAR(8) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
        after_words INT NOT NULL,
        forms TINYINT NOT NULL,
        any_case TINYINT NOT NULL,
        sponsored TINYINT NOT NULL,
        rev INT NOT NULL DEFAULT 1,
        KEY link_rule_blog (blog, words)
      )`,
  `CREATE TABLE kept_address (
        id ${ID} NOT NULL PRIMARY KEY,
        blog ${ID} NULL,
        kind VARCHAR(8) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
        address VARCHAR(1000) NOT NULL,
        good_for VARCHAR(300) NOT NULL,
        rev INT NOT NULL DEFAULT 1,
        KEY kept_address_blog (blog, kind)
      )`,
  `CREATE TABLE link_use (
        publication ${ID} NOT NULL,
        n INT NOT NULL,
        blog ${ID} NOT NULL,
        article ${ID} NOT NULL,
        address_digest ${SHA} NOT NULL,
        address VARCHAR(1000) NOT NULL,
        target ${ID} NULL,
        block VARCHAR(60) NOT NULL,
        anchor VARCHAR(200) NOT NULL,
        PRIMARY KEY (publication, n),
        KEY link_use_address (address_digest),
        KEY link_use_blog (blog, address_digest),
        KEY link_use_article (article)
      )`,
  `CREATE TABLE link_look (
        address_digest ${SHA} NOT NULL PRIMARY KEY,
        address VARCHAR(1000) NOT NULL,
        host VARCHAR(255) NOT NULL,
        state VARCHAR(8) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
        reason VARCHAR(300) NOT NULL DEFAULT '',
        leads_to VARCHAR(1000) NULL,
        fails INT NOT NULL DEFAULT 0,
        since DATETIME(3) NULL,
        looked_at DATETIME(3) NULL,
        next_at DATETIME(3) NOT NULL,
        KEY link_look_next (next_at)
      )`,
];

/** What pages of a blog say, rules for links, addresses kept for linking, and where the links of what is live lead. */
export class Links1766000000000 implements MigrationInterface {
  readonly name = 'Links1766000000000';

  async up(q: QueryRunner): Promise<void> {
    await q.query(
      `ALTER TABLE link_page ADD language VARCHAR(35) CHARACTER SET ascii COLLATE ascii_bin NULL, ADD terms JSON NULL,
        ADD barred TINYINT NOT NULL DEFAULT 0, ADD read_at DATETIME(3) NULL, ADD KEY link_page_title (blog, title)`,
    );
    await q.query(
      'ALTER TABLE blog ADD pages_due DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3), ADD KEY blog_pages_due (pages_due)',
    );
    await q.query(
      'ALTER TABLE publication ADD links_stale TINYINT NOT NULL DEFAULT 1, ADD KEY publication_links_stale (links_stale)',
    );
    for (const table of TABLES) await q.query(table);
  }

  async down(q: QueryRunner): Promise<void> {
    for (const table of ['link_look', 'link_use', 'kept_address', 'link_rule']) await q.query(`DROP TABLE ${table}`);
    await q.query('ALTER TABLE publication DROP KEY publication_links_stale, DROP links_stale');
    await q.query('ALTER TABLE blog DROP KEY blog_pages_due, DROP pages_due');
    await q.query(
      'ALTER TABLE link_page DROP KEY link_page_title, DROP language, DROP terms, DROP barred, DROP read_at',
    );
  }
}
