import { ownStanding, stepKinds } from '@grivo/core';
import { DataSource } from 'typeorm';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { Procedures } from '../src/engine/briefState.ts';
import { Database, isLostConnection, NewerSchema } from '../src/ground/store/database.ts';
import { migrations } from '../src/ground/store/migrations/index.ts';
import { createPipeline } from '../src/nouns/pipelines/repository.ts';
import { lookAndTake } from '../src/nouns/sources/look.ts';
import { createSource } from '../src/nouns/sources/repository.ts';
import { testDatabaseUrl, type World, world } from './ground/world.ts';

let w: World;
beforeAll(async () => {
  w = await world();
});
afterAll(() => w.close());

describe('the schema', () => {
  test('an article stands as what is known of it says, in the table as in words', async () => {
    const { db } = w.product.ground;
    const id = 'z'.repeat(20);
    await db.run("INSERT INTO article (id, brief, line, family, language) VALUES (?, ?, 'facts', ?, 'en')", [
      id,
      id,
      id,
    ]);
    for (const outAs of [null, 'draft', 'live', 'withdrawn'] as const)
      for (const aside of [false, true])
        for (const slot of [false, true]) {
          await db.run('UPDATE article SET out_as = ?, aside = ?, slot = ? WHERE id = ?', [
            outAs,
            Number(aside),
            Number(slot),
            id,
          ]);
          const [row] = await db.rows<{ standing: string }>('SELECT standing FROM article WHERE id = ?', [id]);
          expect(row!.standing).toBe(ownStanding({ outAs, aside, slot }));
        }
    await db.run('DELETE FROM article WHERE id = ?', [id]);
  });

  test('articles and publications of a store of before stand as they did, and go back the same', async () => {
    const { db } = w.product.ground;
    const kept: [string, string | null, string][] = [
      ['a', null, 'in work'],
      ['b', 'live', 'out'],
      ['c', 'draft', 'draft'],
      ['d', 'withdrawn', 'withdrawn'],
    ];
    for (const [name, state] of kept) {
      const id = name.repeat(20);
      await db.run("INSERT INTO article (id, brief, line, family, language, out_as) VALUES (?, ?, 'm', ?, 'en', ?)", [
        id,
        id,
        id,
        state,
      ]);
      if (state !== null)
        await db.run("INSERT INTO publication (id, article, blog, key_, state, as_) VALUES (?, ?, 'b', ?, ?, 'live')", [
          id,
          id,
          name,
          state,
        ]);
    }
    const key = 'create/abc/1';
    await db.run(
      "INSERT INTO intent (id, key_, kind, step_run, state, token, due_at) VALUES ('i', ?, 'create', 's', 'done', 't', UTC_TIMESTAMP(3))",
      [key],
    );
    const since = migrations.findIndex(({ name }) => name === 'Standing1765300000000');
    for (let n = migrations.length; n > since; n--) await db.source.undoLastMigration();
    const [before] = await db.rows<{ standing: string; key_: string }>(
      "SELECT a.standing, (SELECT key_ FROM intent WHERE id = 'i') AS key_ FROM article a WHERE a.id = ?",
      ['c'.repeat(20)],
    );
    expect(before).toEqual({ standing: 'out', key_: 'create/abc' });
    await db.source.runMigrations();
    for (const [name, , standing] of kept) {
      const [row] = await db.rows<{ standing: string }>('SELECT standing FROM article WHERE id = ?', [name.repeat(20)]);
      expect(row!.standing).toBe(standing);
    }
    expect((await db.rows("SELECT key_ FROM intent WHERE id = 'i'"))[0]).toEqual({ key_: key });
    await db.run("DELETE FROM article WHERE line = 'm'");
    await db.run("DELETE FROM publication WHERE blog = 'b'");
    await db.run("DELETE FROM intent WHERE id = 'i'");
  });

  test('a state no event leads to is refused by the database of the tests', async () => {
    const { db } = w.product.ground;
    const id = 'y'.repeat(20);
    await db.run(
      "INSERT INTO publication (id, article, blog, key_, state, as_) VALUES (?, ?, ?, 'k', 'live', 'live')",
      [id, id, id],
    );
    await expect(db.run("UPDATE publication SET state = 'draft' WHERE id = ?", [id])).rejects.toThrow('no event leads');
    await db.run('DELETE FROM publication WHERE id = ?', [id]);
  });

  test('what the entities say of their tables is what the migrations made', async () => {
    const { source } = w.product.ground.db;
    const log = await source.driver.createSchemaBuilder().log();
    const about = new Set(source.entityMetadatas.map((entity) => entity.tableName));
    const ours = log.upQueries
      .map(({ query }) => query)
      .filter((query) => /^ALTER TABLE `(\w+)`/.test(query) && about.has(/`(\w+)`/.exec(query)![1]!))
      // Comments, defaults written another way and index names are the builder's own taste.
      .filter((query) => /ADD `|DROP COLUMN/.test(query));
    expect(ours).toEqual([]);
  });

  test('a long text is kept letter by letter as a short one is, by itself and in rows', async () => {
    const { db } = w.product.ground;
    const letters = `'"\\\0\n\r\t\u001a%_ä😀‘’`;
    const long = letters.repeat(6_000);
    await db.run('CREATE TABLE letters (n INT PRIMARY KEY, text LONGTEXT, json JSON)');
    try {
      await db.run('INSERT INTO letters (n, text, json) VALUES (?, ?, ?)', [1, long, JSON.stringify([long])]);
      await db.run('INSERT INTO letters (n, text, json) VALUES ?', [
        [
          [2, long, JSON.stringify([letters])],
          [3, letters, JSON.stringify([long])],
        ],
      ]);
      const rows = await db.rows<{ text: string; json: unknown }>('SELECT text, json FROM letters ORDER BY n');
      expect(rows.map(({ text }) => text)).toEqual([long, long, letters]);
      expect(rows.map(({ json }) => (typeof json === 'string' ? JSON.parse(json) : json))).toEqual([
        [long],
        [letters],
        [long],
      ]);
      const same = await db.rows<{ n: number }>('SELECT n FROM letters WHERE text = ? ORDER BY n', [long]);
      expect(same.map(({ n }) => n)).toEqual([1, 2]);
    } finally {
      await db.run('DROP TABLE letters');
    }
  });

  test('a database a newer program has set up is refused in a sentence', async () => {
    const { db } = w.product.ground;
    await db.run("INSERT INTO migrations (timestamp, name) VALUES (1, 'Later2')");
    const url = `${(db.source.options as { url: string }).url}`;
    await expect(Database.open(url, 1)).rejects.toThrow(NewerSchema);
    await expect(Database.open(url, 1)).rejects.toThrow(/set up by a newer Grivo \(it has Later2\)/);
    await db.run("DELETE FROM migrations WHERE name = 'Later2'");
  });

  test('each migration brings the schema before it up, with data in it, and twice does nothing', async () => {
    const url = await testDatabaseUrl();
    for (const [n, migration] of migrations.entries()) {
      const before = new DataSource({
        type: 'mariadb',
        url,
        migrations: migrations.slice(0, n + 1),
        migrationsTransactionMode: 'each',
      });
      await before.initialize();
      const kept = n === 0 ? [] : await rowCounts(before);
      expect((await before.runMigrations()).map(({ name }) => name)).toEqual([migration.name]);
      const after = new Map(await rowCounts(before));
      for (const [table, rows] of kept)
        if (table !== 'migrations') expect([table, after.get(table)]).toEqual([table, rows]);
      if (n === 0) await aRowInEveryTable(before);
      await before.destroy();
    }
    const now = await Database.open(url, 2);
    expect(await now.migrate()).toBe(0);
    await now.close();
    // The test's own database was the same one: it is set up again for the tests that follow.
    await w.close();
    w = await world();
  });
});

describe('taking', () => {
  test('an item is taken once by each pipeline, also by two looks at the same moment and when it comes in again', async () => {
    const { ground } = w.product;
    const id = await w.pipeline(['sea salt', 'rock salt', 'table salt']);
    const look = () => ground.db.transaction((sql) => lookAndTake(sql, ground, new Procedures(), id));
    const both = await Promise.all([look(), look()]);
    expect(both.flatMap(({ briefs }) => briefs)).toHaveLength(3);
    expect((await look()).briefs).toEqual([]);
  });

  test('one at a time, five minutes apart by the desk clock', async () => {
    const { ground } = w.product;
    await ground.desk.set(Date.parse('2026-05-04T08:00:00Z'), 0);
    const source = await createSource(ground, { kind: 'keywords' }, 'Spaced');
    await ground.db.run(
      'INSERT INTO item (id, source, identity, content_digest, fingerprint, subject, fields) VALUES ?',
      [
        ['a', 'b', 'c'].map((name) => [
          ground.ids(),
          source,
          name.repeat(64),
          name.repeat(64),
          name.repeat(64),
          `salt ${name}`,
          '{}',
        ]),
      ],
    );
    const pipeline = await createPipeline(ground, {
      name: 'Spaced',
      person: null,
      document: {
        grivo: 1,
        language: 'en',
        steps: [
          {
            id: 's1',
            kind: 'take',
            off: false,
            sources: [source],
            most: null,
            gather: null,
            everyMinutes: null,
            atOnce: 1,
            apartMinutes: 5,
            mostMinutes: null,
          },
          { ...stepKinds['look up'].fresh('s2'), pages: 3, ours: false },
        ],
      },
    });
    await w.product.work('both');
    const briefs = await w.take(pipeline);
    const standing = async () =>
      (
        await ground.db.rows<{ standing: string }>('SELECT standing FROM brief WHERE id IN (?) ORDER BY id', [briefs])
      ).map((row) => row.standing);
    await expect.poll(standing, { timeout: 8_000 }).toEqual(['out', 'waiting', 'waiting']);
    await new Promise((resolve) => setTimeout(resolve, 400));
    expect(await standing()).toEqual(['out', 'waiting', 'waiting']);
    await ground.desk.set(Date.parse('2026-05-04T08:05:00Z'), 0);
    w.product.bell.ring({ kind: 'admit' });
    await expect.poll(standing, { timeout: 8_000 }).toEqual(['out', 'out', 'waiting']);
  });
});

test('a lost connection is known by its code, a wrong statement is not one', async () => {
  const wrong = await w.product.ground.db.rows('SELECT * FROM nowhere').catch((error: unknown) => error);
  expect(isLostConnection(wrong)).toBe(false);
  expect(isLostConnection(Object.assign(new Error(), { code: 'ECONNRESET' }))).toBe(true);
});

async function rowCounts(source: DataSource): Promise<[string, number][]> {
  const tables: { name: string }[] = await source.query(
    "SELECT table_name AS name FROM information_schema.tables WHERE table_schema = DATABASE() AND table_type = 'BASE TABLE'",
  );
  const out: [string, number][] = [];
  for (const { name } of tables) {
    const [row]: { n: string }[] = await source.query(`SELECT COUNT(*) AS n FROM \`${name}\``);
    out.push([name, Number(row!.n)]);
  }
  return out;
}

/** One row in every table, with whatever its columns take. */
async function aRowInEveryTable(source: DataSource): Promise<void> {
  const columns: { t: string; c: string; type: string; most: number | null; checked: number }[] = await source.query(
    `SELECT c.table_name AS t, c.column_name AS c, c.data_type AS type, c.character_maximum_length AS most,
       EXISTS (SELECT 1 FROM information_schema.check_constraints k WHERE k.constraint_schema = DATABASE() AND k.table_name = c.table_name AND k.constraint_name = c.column_name) AS checked
     FROM information_schema.columns c WHERE c.table_schema = DATABASE() AND c.table_name <> 'migrations'`,
  );
  const value = (column: (typeof columns)[number]) => {
    if (Number(column.checked)) return '{}';
    if (/date|time/.test(column.type)) return '2026-01-01 00:00:00';
    if (/char|text|blob|binary/.test(column.type)) return 'x'.repeat(Math.min(Number(column.most ?? 2), 2));
    return 7;
  };
  for (const table of new Set(columns.map(({ t }) => t))) {
    const own = columns.filter(({ t }) => t === table);
    await source.query(
      `INSERT INTO \`${table}\` (${own.map(({ c }) => `\`${c}\``).join()}) VALUES (${own.map(() => '?').join()})`,
      own.map(value),
    );
  }
}
