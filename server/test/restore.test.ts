import { spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { Database } from '../src/ground/store/database.ts';
import { testDatabaseUrl } from './ground/world.ts';

const folder = mkdtempSync(join(tmpdir(), 'grivo-restore-'));
let url: string;
let db: Database;
beforeAll(async () => {
  url = await testDatabaseUrl();
  db = await Database.open(url, 2);
});
afterAll(async () => {
  await db.close();
  rmSync(folder, { recursive: true, force: true });
});

function run(what: 'backup' | 'restore', file: string): { status: number | null; said: string } {
  const done = spawnSync(
    process.execPath,
    [join(import.meta.dirname, '../../scripts/backup.mjs'), what, file, '--over'],
    { env: { ...process.env, GRIVO_DATABASE_URL: url }, encoding: 'utf8' },
  );
  return { status: done.status, said: `${done.stdout}${done.stderr}` };
}

test('what was saved is brought back, letters that look like commands among it', async () => {
  const text = '\\! touch nothing\n\\. /etc/hosts\nsystem ls; DELIMITER //';
  await db.run('CREATE TABLE kept (id INT PRIMARY KEY, text TEXT)');
  await db.run('INSERT INTO kept VALUES (1, ?)', [text]);
  const file = join(folder, 'kept.sql.gz');
  expect(run('backup', file).said).toContain('Saved');
  await db.run('DELETE FROM kept');
  expect(run('restore', file)).toMatchObject({ status: 0 });
  expect(await db.rows('SELECT text FROM kept')).toEqual([{ text }]);
});

test.each([
  ['a shell', (mark: string) => `\\! touch ${mark}\n`],
  ['a shell by its name', (mark: string) => `system touch ${mark}\n`],
  ['another file', (mark: string) => `\\T ${mark}\nSELECT 1;\n`],
  ['a pager', (mark: string) => `\\P touch ${mark}\nSELECT 1;\n`],
  ['a shell within a statement', (mark: string) => `SELECT 1;\n\\! touch ${mark}\nSELECT 2;\n`],
  ['a shell behind another delimiter', (mark: string) => `DELIMITER //\nSELECT 1//\n\\! touch ${mark}\n//\n`],
])('a file that would have the client run %s runs nothing', (_name, dump) => {
  const mark = join(folder, `mark-${_name.replace(/ /g, '-')}`);
  const file = join(folder, 'evil.sql.gz');
  writeFileSync(file, gzipSync(dump(mark)));
  run('restore', file);
  expect(existsSync(mark)).toBe(false);
});
