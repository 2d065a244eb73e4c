import type { KeptNoun, KeptWords } from '@grivo/contract';
import type { Ground } from '../../ground/ground.ts';
import type { Sql } from '../../ground/store/database.ts';
import { type Noun, tellChange } from '../../ground/store/event.ts';
import { forget } from '../pipelines/clear.ts';
import { switchPipeline } from '../pipelines/repository.ts';
import { HANGS, REMOVES } from './hangs.ts';

const TABLES: Record<KeptNoun, { table: string; noun: Noun; words: readonly (keyof KeptWords)[] }> = {
  pipelines: { table: 'pipeline', noun: 'pipeline', words: ['name', 'note', 'archived', 'openLimit'] },
  sources: { table: 'source', noun: 'source', words: ['name', 'note', 'archived'] },
  blogs: { table: 'blog', noun: 'blog', words: ['name', 'note', 'archived'] },
  services: { table: 'service', noun: 'service', words: ['name'] },
  routines: { table: 'routine', noun: 'routine', words: ['name'] },
  labels: { table: 'label', noun: 'label', words: ['name'] },
  destinations: { table: 'destination', noun: 'destination', words: ['name', 'note'] },
  styles: { table: 'house_style', noun: 'style', words: ['name', 'note', 'archived'] },
};

const COLUMNS: Record<keyof KeptWords, string> = {
  name: 'name',
  note: 'note',
  archived: 'archived',
  openLimit: 'open_limit',
};

export const nounOf = (of: KeptNoun) => TABLES[of].noun;

export async function nameOf(sql: Sql, of: KeptNoun, id: string): Promise<string | null> {
  const [row] = await sql.rows<{ name: string }>(`SELECT name FROM ${TABLES[of].table} WHERE id = ?`, [id]);
  return row?.name ?? null;
}

export type Kept = { ok: true } | { ok: false; why: 'no such word'; word: string } | { ok: false; why: 'name taken' };

/** Changes words of a thing and leaves the others as they are. Names are chosen from, so no two are the same. */
export async function keepWords(ground: Ground, of: KeptNoun, id: string, given: KeptWords): Promise<Kept> {
  const { table, noun, words } = TABLES[of];
  const entries = Object.entries(given) as [keyof KeptWords, unknown][];
  const strange = entries.find(([word]) => !words.includes(word));
  if (strange) return { ok: false, why: 'no such word', word: strange[0] };
  const done = await ground.db.transaction(async (sql): Promise<Kept> => {
    if (given.name !== undefined) {
      const taken = await sql.rows(`SELECT 1 FROM ${table} WHERE LOWER(name) = LOWER(?) AND id <> ? LIMIT 1`, [
        given.name,
        id,
      ]);
      if (taken.length > 0) return { ok: false, why: 'name taken' };
    }
    if (entries.length > 0)
      await sql.run(
        `UPDATE ${table} SET ${entries.map(([word]) => `${COLUMNS[word]} = ?`).join(', ')}, rev = rev + 1 WHERE id = ?`,
        [...entries.map(([, value]) => (typeof value === 'boolean' ? Number(value) : value)), id],
      );
    await tellChange(sql, ground, noun, id);
    return { ok: true };
  });
  // What is put away does nothing by itself any more.
  if (done.ok && of === 'pipelines' && given.archived) await switchPipeline(ground, id, false);
  return done;
}

/**
 * Removes a thing and what is nothing without it.
 * @returns why it cannot be removed; empty when it is gone
 */
export async function removeKept(ground: Ground, of: KeptNoun, id: string): Promise<string[]> {
  const { noun } = TABLES[of];
  const { unless } = await HANGS[of](ground.db, id);
  if (unless.length > 0) return unless;
  if (of === 'pipelines') {
    const trials = await ground.db.rows<{ id: string }>('SELECT id FROM brief WHERE pipeline = ? AND trial = 1', [id]);
    if (trials.length > 0)
      await forget(
        ground,
        trials.map((trial) => trial.id),
      );
  }
  await ground.db.transaction(async (sql) => {
    for (const statement of REMOVES[of]) await sql.run(statement, [id]);
    await tellChange(sql, ground, noun, id);
  });
  return [];
}
