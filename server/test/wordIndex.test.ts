import fc from 'fast-check';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { Database } from '../src/ground/store/database.ts';
import { migrations } from '../src/ground/store/migrations/index.ts';
import { noteWords, numbersSaying, type Saying, wordsBeginning } from '../src/nouns/articles/wordIndex.ts';
import { testDatabaseUrl } from './ground/world.ts';

let db: Database;
beforeAll(async () => {
  db = await Database.open(await testDatabaseUrl(), 6);
  await db.migrate();
});
afterAll(() => db.close());

const WORDS = ['x_bar', 'x_barn', 'x_bell', 'x_öl', 't_bell'];

async function found(asked: readonly Saying[], below: number | null = null, about = 1): Promise<number[]> {
  const all: number[] = [];
  for await (const some of numbersSaying(db, asked, below, about)) all.push(...some);
  return all;
}

/** An article by its number alone. */
async function articles(...numbers: number[]): Promise<void> {
  const rows = numbers.map((n) => [String(n).padStart(20, '0'), 'b', `${n}`, 'b', 'en', n]);
  await db.run('INSERT INTO article (id, brief, line, family, language, n) VALUES ?', [rows]);
}

test('whatever articles come to say and say no more, the index tells who says it, the newest first', async () => {
  await articles(5_000);
  const numbers = fc.constantFrom(1, 31, 32, 33, 63, 64, 700, 2_047, 4_999, 5_000);
  const word = fc.constantFrom(...WORDS);
  const words = fc.uniqueArray(word, { minLength: 1, maxLength: 3 });
  await fc.assert(
    fc.asyncProperty(
      fc.array(fc.tuple(numbers, fc.uniqueArray(word)), { maxLength: 14 }),
      fc.tuple(words, fc.array(fc.record({ words, not: fc.boolean() }), { maxLength: 3 })),
      fc.option(numbers),
      fc.constantFrom(1, 5, 4_000),
      async (noted, [must, more], below, about) => {
        await db.run('DELETE FROM article_word');
        const says = new Map<number, readonly string[]>();
        for (const [n, now] of noted) {
          const before = says.get(n) ?? [];
          await noteWords(db, n, {
            come: now.filter((one) => !before.includes(one)),
            gone: before.filter((one) => !now.includes(one)),
          });
          says.set(n, now);
        }
        const asked = [...more, { words: must, not: false }];
        const fits = [...says]
          .filter(
            ([n, of]) => n < (below ?? 10_000) && asked.every((a) => a.words.some((w) => of.includes(w)) !== a.not),
          )
          .map(([n]) => n);
        expect(await found(asked, below, about)).toEqual(fits.sort((a, b) => b - a));
        const said = new Set([...says.values()].flat());
        expect(await wordsBeginning(db, 'x_b', 10)).toEqual([...said].filter((one) => one.startsWith('x_b')).sort());
      },
    ),
    { numRuns: 60 },
  );
});

test('articles of one block that are noted at once by several keep every word', async () => {
  await db.run('DELETE FROM article_word');
  const words = Array.from({ length: 400 }, (_, i) => `x_${i}`);
  const note = (n: number, come: string[], gone: string[]) =>
    db.transaction((sql) => noteWords(sql, n, { come, gone }));
  const [even, odd] = [0, 1].map((rest) => words.filter((_, i) => i % 2 === rest));
  await Promise.all(Array.from({ length: 20 }, (_, n) => note(n, n % 2 ? [...words].reverse() : words, [])));
  await Promise.all(Array.from({ length: 20 }, (_, n) => note(n, [], n % 2 ? even! : odd!)));
  const all = await db.rows<{ word: string; mask: number }>("SELECT word, mask FROM article_word WHERE word <> ''");
  expect(all).toHaveLength(400);
  for (const { word, mask } of all) expect([word, mask]).toEqual([word, even!.includes(word) ? 0x55555 : 0xaaaaa]);
});

test.each([1, 120, 4_000])(
  'of what very many say all is found in a few parts, though only %i were to be looked at',
  async (about) => {
    await db.run('DELETE FROM article_word');
    await db.run("INSERT INTO article_word (word, block, mask) SELECT 'x_all', seq, 1 FROM seq_0_to_3124");
    let [parts, all] = [0, 0];
    for await (const some of numbersSaying(db, [{ words: ['x_all'], not: false }], 100_000, about)) {
      parts++;
      all += some.length;
    }
    expect([all, parts < 9]).toEqual([3_125, true]);
  },
);

test('nothing is looked for where nothing must be said', async () => {
  await expect(found([{ words: ['x_bar'], not: true }])).rejects.toThrow('Nothing is asked');
});

test('articles of an older schema are numbered as they were made, and found by what was noted of them, at a second start too', async () => {
  for (let n = migrations.length; n > migrations.findIndex(({ name }) => name === 'WordBlocks1767800000000'); n--)
    await db.source.undoLastMigration();
  await db.run('DELETE FROM article');
  const id = (n: number) => String(n).padStart(20, '0');
  const made = Array.from({ length: 90 }, (_, n) => n).sort((a, b) => (a % 7) - (b % 7));
  await db.run('INSERT INTO article (id, brief, line, family, language) VALUES ?', [
    made.map((n) => [id(n), 'b', `${n}`, 'b', 'en']),
  ]);
  await db.run('INSERT INTO article_glance (article, revision, marks, out_of_range, words) VALUES ?', [
    made.filter((n) => n !== 8).map((n) => [id(n), 'r', 0, '[]', ` t_bell x_bell ${n % 3 ? 'x_bar' : 'x_öl'} x_bell `]),
  ]);
  // One that was killed in the middle: numbers are there, the table is not, and it is not noted as done.
  await db.run('ALTER TABLE article ADD n INT UNSIGNED NOT NULL AUTO_INCREMENT, ADD UNIQUE KEY article_n (n)');
  await db.run('DROP TABLE article_word');
  await db.source.runMigrations();
  const rows = await db.rows<{ id: string }>('SELECT id FROM article ORDER BY n');
  expect(rows.map((row) => row.id)).toEqual([...rows].map((row) => row.id).sort());
  const numbers = await found([{ words: ['x_bar'], not: false }]);
  const there = await db.rows<{ id: string }>('SELECT id FROM article WHERE n IN (?) ORDER BY id', [numbers]);
  expect(there.map((row) => Number(row.id))).toEqual([...made].sort((a, b) => a - b).filter((n) => n % 3 && n !== 8));
});
