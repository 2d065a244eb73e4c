import { CadenceRule, nextFreeSlot } from '@grivo/core';
import type { Ground } from '../../ground/ground.ts';
import type { Sql } from '../../ground/store/database.ts';
import { tellChange } from '../../ground/store/event.ts';
import { publicationMoves } from './editions.ts';

/**
 * The moment an article goes out on a blog: the placement it has, or the first free slot from now, stored. Placing
 * compares and raises the blog's cadence rev, so two articles never take one slot and the gap holds.
 * @returns null when the cadence makes no slot
 */
export async function placeArticle(ground: Ground, article: string, blog: string): Promise<number | null> {
  for (;;) {
    const [held] = await ground.db.rows<{ due_desk: number }>(
      'SELECT due_desk FROM placement WHERE article = ? AND blog = ?',
      [article, blog],
    );
    if (held) return Number(held.due_desk);
    const [row] = await ground.db.rows<{ cadence: unknown; cadence_rev: number; last_out_desk: number | null }>(
      'SELECT cadence, cadence_rev, last_out_desk FROM blog WHERE id = ?',
      [blog],
    );
    if (!row) return null;
    const rule = CadenceRule.parse(row.cadence);
    const now = ground.desk.now();
    const taken = await takenFrom(ground.db, blog, now - rule.gapMinutes * 60_000);
    if (row.last_out_desk !== null) taken.push({ at: Number(row.last_out_desk) });
    const at = nextFreeSlot(rule, taken, now);
    if (at === null) return null;
    const placed = await ground.db.transaction<boolean>(
      async (sql) => {
        if (
          (await sql.run('UPDATE blog SET cadence_rev = cadence_rev + 1 WHERE id = ? AND cadence_rev = ?', [
            blog,
            row.cadence_rev,
          ])) === 0
        )
          return false;
        await sql.run('INSERT IGNORE INTO placement (article, blog, due_desk) VALUES (?, ?, ?)', [article, blog, at]);
        await tellChange(sql, ground, 'blog', blog);
        return true;
      },
      async () => false,
    );
    if (placed) return at;
  }
}

async function takenFrom(sql: Sql, blog: string, from: number): Promise<{ at: number }[]> {
  const rows = await sql.rows<{ due_desk: number }>('SELECT due_desk FROM placement WHERE blog = ? AND due_desk >= ?', [
    blog,
    from,
  ]);
  return rows.map((row) => ({ at: Number(row.due_desk) }));
}

/** On time within this much of desk time; later than that the moment it really goes out counts for the gap. */
const ON_TIME_MS = 120_000;

/**
 * Claims the blog for one publication going out now: no two closer than the gap, also when several are overdue after an
 * outage. Claimed once for each publication.
 * @returns the desk moment to wait for, or null when it may go out
 */
export async function claimTurn(
  ground: Ground,
  publication: string,
  blog: string,
  dueDesk: number,
): Promise<number | null> {
  const now = ground.desk.now();
  const moment = now - dueDesk <= ON_TIME_MS ? dueDesk : now;
  return ground.db.transaction<number | null>(
    async (sql) => {
      const [row] = await sql.rows<{ cadence: unknown; last_out_desk: number | null }>(
        'SELECT cadence, last_out_desk FROM blog WHERE id = ? FOR UPDATE',
        [blog],
      );
      if (!row) return null;
      const gap = CadenceRule.parse(row.cadence).gapMinutes * 60_000;
      const free = row.last_out_desk === null ? moment : Number(row.last_out_desk) + gap;
      if (free > moment) return free;
      const begun = await sql.run(
        `UPDATE publication SET ${publicationMoves.begin.set} WHERE id = ? AND state = 'planned'`,
        [publication],
      );
      if (begun === 1) await sql.run('UPDATE blog SET last_out_desk = ? WHERE id = ?', [moment, blog]);
      return null;
    },
    async (sql) =>
      (await sql.rows("SELECT 1 FROM publication WHERE id = ? AND state <> 'planned'", [publication])).length > 0
        ? null
        : undefined,
  );
}
