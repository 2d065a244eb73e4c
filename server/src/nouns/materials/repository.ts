import { type PageText, type Passage, passagesOf } from '@grivo/core';
import type { Database, Sql } from '../../ground/store/database.ts';

/** Keeps the passages of a page by its content. */
export async function storePage(db: Database, page: PageText, digest: string): Promise<Passage[]> {
  const passages = passagesOf(page, digest);
  await store(db, digest, page, passages);
  return passages;
}

/** Keeps passages that were cut already; their ids begin with the digest of what they are from. */
export async function storePassages(
  db: Database,
  about: { address: string; title: string; language: string },
  passages: readonly Passage[],
): Promise<void> {
  const digest = passages[0]?.id.split(':')[0];
  if (digest !== undefined) await store(db, digest, about, passages);
}

async function store(
  db: Database,
  digest: string,
  { address, title, language }: { address: string; title: string; language: string },
  passages: readonly Passage[],
): Promise<void> {
  await db.transaction(
    async (sql) => {
      const made = await sql.run('INSERT IGNORE INTO material (digest, address, title, language) VALUES (?, ?, ?, ?)', [
        digest,
        address.slice(0, 1_000),
        title.slice(0, 500),
        language,
      ]);
      if (made > 0 && passages.length > 0)
        await sql.run('INSERT INTO passage (material, n, locator, text) VALUES ?', [
          passages.map((passage, i) => [digest, i + 1, JSON.stringify(passage.locator), passage.text]),
        ]);
      return true;
    },
    async (sql) =>
      (await sql.rows('SELECT 1 FROM material WHERE digest = ?', [digest])).length > 0 ? true : undefined,
  );
}

interface PassageRow {
  material: string;
  n: number;
  locator: Passage['locator'];
  text: string;
  language: string;
}

/** Passages by their ids (`digest:n`), in the order asked for. */
export async function passagesById(db: Sql, ids: readonly string[]): Promise<Passage[]> {
  if (ids.length === 0) return [];
  const materials = [...new Set(ids.map((id) => id.split(':')[0]!))];
  const rows = await db.rows<PassageRow>(
    'SELECT p.material, p.n, p.locator, p.text, m.language FROM passage p JOIN material m ON m.digest = p.material WHERE p.material IN (?)',
    [materials],
  );
  const byId = new Map(rows.map((row) => [`${row.material}:${row.n}`, row]));
  return ids.flatMap((id) => {
    const row = byId.get(id);
    return row ? [{ id, text: row.text, locator: row.locator, language: row.language }] : [];
  });
}
