import { stepKinds } from '@grivo/core';
import { DataSource } from 'typeorm';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { Procedures } from '../src/engine/briefState.ts';
import { createPipeline } from '../src/pipelines/repository.ts';
import { lookAndTake } from '../src/sources/look.ts';
import { createSource } from '../src/sources/repository.ts';
import { Database, isLostConnection, NewerSchema } from '../src/store/database.ts';
import { migrations } from '../src/store/migrations/index.ts';
import { testDatabaseUrl, type World, world } from './ground/world.ts';

let w: World;
beforeAll(async () => {
  w = await world();
});
afterAll(() => w.close());

describe('the schema', () => {
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

describe('hot queries', () => {
  test.each([
    [
      'a claim',
      "SELECT id AS run, brief FROM step_run WHERE place = 'Lx' AND id > '' ORDER BY id LIMIT 50",
      'step_run_place',
    ],
    [
      'what is due by the desk clock',
      "SELECT id FROM step_run WHERE state = 'waiting' AND place >= 'D' AND place <= 'D000000000000005' ORDER BY place LIMIT 500",
      'step_run_place',
    ],
    [
      'retries',
      "SELECT id FROM step_run WHERE state = 'waiting' AND place >= 'T' AND place <= CONCAT('T', UTC_TIMESTAMP(3)) ORDER BY place LIMIT 500",
      'step_run_place',
    ],
    ['what an incident stopped', "SELECT id FROM step_run WHERE place = 'Ix' AND state = 'stopped'", 'step_run_place'],
    [
      'a page of articles',
      "SELECT id FROM article WHERE trial = 0 AND id < 'z' ORDER BY id DESC LIMIT 100",
      'article_list',
    ],
    ['a page of briefs', "SELECT id FROM brief WHERE trial = 0 AND id < 'z' ORDER BY id DESC LIMIT 100", 'brief_list'],
    [
      'briefs to let in',
      "SELECT id FROM brief WHERE pipeline = 'p' AND trial = 0 AND standing = 'waiting' ORDER BY priority, id LIMIT 10",
      'brief_standing',
    ],
    ['slots of a blog', "SELECT article FROM placement WHERE blog = 'b' AND due_desk >= 5", 'placement_due'],
    ['new events', 'SELECT id FROM event WHERE at >= DATE_SUB(UTC_TIMESTAMP(3), INTERVAL 15 SECOND)', 'event_at'],
  ])('%s goes by its index', async (_name, query, key) => {
    const { db, ids } = w.product.ground;
    if (((await db.rows<{ n: number }>('SELECT COUNT(*) AS n FROM step_run'))[0]?.n ?? 0) < 3_000) await fill(db, ids);
    const [plan] = await db.rows<{ key: string; type: string }>(`EXPLAIN ${query}`);
    expect(plan?.key).toBe(key);
  });

  async function fill(db: Database, ids: () => string): Promise<void> {
    const brief = Array.from({ length: 3_000 }, () => ids());
    await db.run('INSERT INTO brief (id, pipeline, standing, seed, subject, fields, made_desk, trial) VALUES ?', [
      brief.map((id, i) => [id, i % 7 ? ids() : 'p', i % 3 ? 'out' : 'waiting', 's', 'x', '{}', 0, i % 2]),
    ]);
    await db.run(
      'INSERT INTO step_run (id, brief, path, kind, state, home_lane, lane, due_desk, due_at, incident) VALUES ?',
      [
        brief.map((id, i) => [
          ids(),
          id,
          's1',
          'check',
          i % 10 === 0 ? 'ready' : i % 9 === 0 ? 'waiting' : i % 8 === 0 ? 'stopped' : 'done',
          'x',
          i % 10 ? null : 'x',
          i % 9 ? null : i,
          null,
          i % 8 ? null : ids(),
        ]),
      ],
    );
    await db.run('INSERT INTO article (id, brief, family, language, standing, trial) VALUES ?', [
      brief.map((id, i) => [ids(), id, id, 'en', 'ready', i % 2]),
    ]);
    await db.run('INSERT INTO placement (article, blog, due_desk) VALUES ?', [
      brief.map((id, i) => [id, i % 5 ? ids() : 'b', i]),
    ]);
    await db.run('INSERT INTO event (id, noun, noun_id, at) VALUES ?', [
      brief.map((id) => [ids(), 'brief', id, '2026-01-01 00:00:00']),
    ]);
    await db.run('ANALYZE TABLE step_run, brief, article, placement, event');
  }
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
          { ...stepKinds['look up'].fresh('s2'), pages: 3 },
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
