import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Articles that are read at once: whole blocks. */
const AT_ONCE = 2_048;
const ROWS = 5_000;
const BLOCK = 32;

/**
 * The index of words by blocks of articles: a row for a word and thirty-two articles, each of them a bit. For that articles are
 * numbered, in the order in which they were made.
 */
export class WordBlocks1767800000000 implements MigrationInterface {
  readonly name = 'WordBlocks1767800000000';

  async up(q: QueryRunner): Promise<void> {
    // It takes minutes where there are very many: ended in the middle, it is begun again.
    await q.query(
      'ALTER TABLE article ADD COLUMN IF NOT EXISTS n INT UNSIGNED NOT NULL AUTO_INCREMENT, ADD UNIQUE KEY IF NOT EXISTS article_n (n)',
    );
    await q.query('DROP TABLE IF EXISTS article_word');
    await q.query(
      `CREATE TABLE article_word (
        word VARCHAR(64) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL,
        block INT UNSIGNED NOT NULL,
        mask INT UNSIGNED NOT NULL,
        PRIMARY KEY (word, block)
      )`,
    );
    const [{ last }]: [{ last: number }] = await q.query('SELECT COALESCE(MAX(n), 0) AS last FROM article');
    for (let from = 0; from <= last; from += AT_ONCE) await this.index(q, from);
  }

  /** Notes what the articles of some blocks say. */
  private async index(q: QueryRunner, from: number): Promise<void> {
    const noted: { n: number; words: string }[] = await q.query(
      'SELECT a.n, y.words FROM article a JOIN article_glance y ON y.article = a.id WHERE a.n >= ? AND a.n < ?',
      [from, from + AT_ONCE],
    );
    const masks = new Map<string, Map<number, number>>();
    for (const { n, words } of noted)
      for (const word of new Set(words.split(' '))) {
        if (word === '') continue;
        const blocks = masks.get(word) ?? new Map<number, number>();
        masks.set(word, blocks);
        const block = Math.floor(n / BLOCK);
        blocks.set(block, (blocks.get(block) ?? 0) + 2 ** (n % BLOCK));
      }
    const rows = [...masks.keys()]
      .sort()
      .flatMap((word) => [...masks.get(word)!].map(([block, mask]) => [word, block, mask] as const));
    for (let at = 0; at < rows.length; at += ROWS)
      await q.query('INSERT INTO article_word (word, block, mask) VALUES ?', [rows.slice(at, at + ROWS)]);
  }

  async down(q: QueryRunner): Promise<void> {
    await q.query('DROP TABLE article_word');
    await q.query(
      `CREATE TABLE article_word (
        word VARCHAR(64) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL,
        article CHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
        PRIMARY KEY (word, article)
      )`,
    );
    // What is noted of articles goes too, so that all of it is noted anew.
    await q.query('DELETE FROM article_glance');
    await q.query('UPDATE article SET glanced = NULL');
    await q.query('ALTER TABLE article DROP KEY article_n, DROP COLUMN n');
  }
}
