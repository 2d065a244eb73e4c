import type { Sql } from '../../ground/store/database.ts';

/**
 * Which article says which word: a row for a word and a block of articles, each of them a bit of a number. A word that nearly
 * all say has few rows, and what several words lead to is told of a whole block by one operation (Manning, Raghavan, Schütze,
 * Introduction to Information Retrieval, 2008, chapters 2 and 5).
 */

/** Articles of a block: as many as a number has bits that the database and JavaScript both reckon with. */
const BLOCK = 32;
/** Rows that are written in one statement. */
const ROWS = 2_000;
/** Blocks that are looked through first, from the newest on; then at most four times as many each time. */
const FIRST_BLOCKS = 16;
const WIDER = 4;

/** Something that is asked of an article: any of some words, or none of them. */
export interface Saying {
  words: readonly string[];
  not: boolean;
}

interface Block {
  block: number;
  mask: number;
}

/** A part of a statement that tells of an article `a` whether it says one of some words. */
export const SAYS_ONE_OF =
  '((SELECT BIT_OR(w.mask) FROM article_word w WHERE w.word IN (?) AND w.block = a.n DIV 32) >> (a.n % 32) & 1) = 1';

/**
 * Notes words that an article says, and those it says no more, in a transaction.
 * @param n the article's number
 */
export async function noteWords(
  sql: Sql,
  n: number,
  { come, gone }: { come: readonly string[]; gone: readonly string[] },
): Promise<void> {
  const block = Math.floor(n / BLOCK);
  const own = 2 ** (n % BLOCK);
  // Whoever notes an article of the block waits here for whoever does: at the rows of its words they would in a circle.
  await sql.run("INSERT INTO article_word (word, block, mask) VALUES ('', ?, 0) ON DUPLICATE KEY UPDATE mask = 0", [
    block,
  ]);
  const rows = [...come.map((word) => [word, block, own] as const), ...gone.map((word) => [word, block, 0] as const)];
  for (let at = 0; at < rows.length; at += ROWS)
    await sql.run(
      'INSERT INTO article_word (word, block, mask) VALUES ? ON DUPLICATE KEY UPDATE mask = (mask & ~?) | VALUES(mask)',
      [rows.slice(at, at + ROWS), own],
    );
  if (gone.length > 0)
    await sql.run('DELETE FROM article_word WHERE word IN (?) AND block = ? AND mask = 0', [gone, block]);
}

/** Words of the index that begin as one that was typed, in their order. */
export async function wordsBeginning(sql: Sql, typed: string, most: number): Promise<string[]> {
  const rows = await sql.rows<{ word: string }>(
    'SELECT DISTINCT word FROM article_word WHERE word >= ? AND word < ? ORDER BY word LIMIT ?',
    [typed, `${typed}\u{10FFFF}`, most],
  );
  return rows.map(({ word }) => word);
}

/**
 * The numbers of the articles that fit all that is asked, the newest first, in parts: the further back, the more at once.
 * @param asked with at least one thing that must be said
 * @param below only numbers under this one; null for all
 * @param about how many will be looked at, as far as is known
 */
export async function* numbersSaying(
  sql: Sql,
  asked: readonly Saying[],
  below: number | null,
  about: number,
): AsyncGenerator<number[]> {
  const end = below ?? (await newestNumber(sql)) + 1;
  const last = Math.floor((end - 1) / BLOCK);
  let [found, width, high] = [0, FIRST_BLOCKS, last];
  while (high >= 0) {
    const low = Math.max(0, high - width + 1);
    const numbers = (await blocksSaying(sql, asked, low, high)).flatMap(numbersIn).filter((n) => n < end);
    if (numbers.length > 0) yield numbers;
    found += numbers.length;
    high = low - 1;
    // As many blocks as should have what is lacking, as far as it was seen how many articles fit; if nothing is, ever more.
    const each = (last - high) / Math.max(1, found);
    const enough = found < about ? Math.ceil((about - found) * each) : Number.POSITIVE_INFINITY;
    width = Math.max(FIRST_BLOCKS, Math.min(width * WIDER, enough));
  }
}

async function newestNumber(sql: Sql): Promise<number> {
  const [row] = await sql.rows<{ n: number | null }>('SELECT MAX(n) AS n FROM article');
  return Number(row?.n ?? 0);
}

/** The articles of a block, the newest first. */
function numbersIn({ block, mask }: Block): number[] {
  const numbers: number[] = [];
  for (let bit = BLOCK - 1; bit >= 0; bit--) if ((mask >>> bit) & 1) numbers.push(block * BLOCK + bit);
  return numbers;
}

/** What fits in some blocks, the newest first. */
async function blocksSaying(sql: Sql, asked: readonly Saying[], low: number, high: number): Promise<Block[]> {
  // What may not be there is taken from what must.
  const tables = [...asked]
    .sort((a, b) => Number(a.not) - Number(b.not))
    .map((one, i) => ({ ...one, ...tableOf(one, `w${i}`, low, high), name: `w${i}` }));
  const [first, ...others] = tables;
  if (!first || first.not) throw new Error('Nothing is asked for that must be said.');
  const joined = others
    .map(({ from, of, not, name }) => `${not ? 'LEFT ' : ''}JOIN ${from} ON ${name}.block = w0.block AND ${of}`)
    .join(' ');
  const mask = tables.map(({ not, name }) => (not ? `~COALESCE(${name}.mask, 0)` : `${name}.mask`)).join(' & ');
  return sql.rows<Block>(
    `SELECT w0.block, ${mask} AS mask FROM ${first.from} ${joined} WHERE ${first.of} AND w0.block BETWEEN ? AND ? AND ${mask} <> 0 ORDER BY w0.block DESC`,
    [...first.within, ...others.flatMap(({ within, beside }) => [...within, ...beside]), ...first.beside, low, high],
  );
}

interface Table {
  from: string;
  /** Which of its rows. */
  of: string;
  /** Parameters of the one and of the other. */
  within: unknown[];
  beside: unknown[];
}

/** The rows of one word as they are; those of several are brought together first, so that a block is met once. */
function tableOf({ words }: Saying, name: string, low: number, high: number): Table {
  if (words.length === 1)
    return { from: `article_word ${name}`, of: `${name}.word = ?`, within: [], beside: [words[0]] };
  return {
    from: `(SELECT block, BIT_OR(mask) AS mask FROM article_word WHERE word IN (?) AND block BETWEEN ? AND ? GROUP BY block) ${name}`,
    of: 'TRUE',
    within: [words, low, high],
    beside: [],
  };
}
