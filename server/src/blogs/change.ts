import { CadenceRule, reflow, stepIdOf } from '@grivo/core';
import type { Secrets } from '../config/secrets.ts';
import { loadBriefs, Procedures } from '../engine/briefState.ts';
import type { Ground } from '../engine/outside.ts';
import type { Sql } from '../store/database.ts';

export interface BlogChange {
  name?: string | undefined;
  language?: string | undefined;
  timeLimitMs?: number | undefined;
  cadence?: CadenceRule | undefined;
  note?: string | undefined;
  archived?: boolean | undefined;
}

/**
 * Changes a blog as it was read at `rev`. A new cadence places again everything that is not pinned and not yet going out.
 * @returns false when somebody else changed it meanwhile
 */
export async function changeBlog(ground: Ground, id: string, rev: number, change: BlogChange): Promise<boolean> {
  return ground.db.transaction(async (sql) => {
    const [row] = await sql.rows<{ rev: number }>('SELECT rev FROM blog WHERE id = ? FOR UPDATE', [id]);
    if (row?.rev !== rev) return false;
    await sql.run(
      'UPDATE blog SET name = COALESCE(?, name), language = COALESCE(?, language), time_limit_ms = COALESCE(?, time_limit_ms), cadence = COALESCE(?, cadence), note = COALESCE(?, note), archived = COALESCE(?, archived), cadence_rev = cadence_rev + 1, rev = rev + 1 WHERE id = ?',
      [
        change.name ?? null,
        change.language ?? null,
        change.timeLimitMs ?? null,
        change.cadence ? JSON.stringify(change.cadence) : null,
        change.note ?? null,
        change.archived === undefined ? null : change.archived ? 1 : 0,
        id,
      ],
    );
    if (change.cadence) {
      const placed = await sql.rows<{ article: string; at: number; pinned: number; state: string | null }>(
        'SELECT l.article, l.due_desk AS at, l.pinned, p.state FROM placement l LEFT JOIN publication p ON p.article = l.article AND p.blog = l.blog WHERE l.blog = ? FOR UPDATE',
        [id],
      );
      const open = placed.map((row) => ({
        article: row.article,
        at: Number(row.at),
        pinned: row.pinned === 1 || (row.state !== null && row.state !== 'planned'),
      }));
      const moved = new Map<string, number>();
      for (const { article, at } of reflow(CadenceRule.parse(change.cadence), open, ground.desk.now())) {
        // Without a slot in two years it keeps the moment it had.
        if (at === null) continue;
        await sql.run('UPDATE placement SET due_desk = ? WHERE article = ? AND blog = ?', [at, article, id]);
        moved.set(article, at);
      }
      await moveWaits(sql, id, moved);
    }
    await sql.run("INSERT INTO event (id, noun, noun_id) VALUES (?, 'blog', ?)", [ground.ids(), id]);
    return true;
  });
}

/** Steps that wait for the moments of these articles on this blog, and on no other. */
async function moveWaits(sql: Sql, blog: string, moved: ReadonlyMap<string, number>): Promise<void> {
  if (moved.size === 0) return;
  const waits = await sql.rows<{ id: string; brief: string; path: string; article: string }>(
    `SELECT r.id, r.brief, r.path, a.id AS article FROM article a JOIN step_run r ON r.brief = a.brief
     WHERE a.id IN (?) AND r.state = 'waiting' AND r.for_slot = 1`,
    [[...moved.keys()]],
  );
  const briefs = await loadBriefs(sql, new Procedures(), [...new Set(waits.map(({ brief }) => brief))]);
  for (const { id, brief, path, article } of waits) {
    const step = briefs.get(brief)?.steps.get(stepIdOf(path));
    if (step?.kind === 'publish' && step.blog === blog)
      await sql.run("UPDATE step_run SET due_desk = ? WHERE id = ? AND state = 'waiting' AND for_slot = 1", [
        moved.get(article),
        id,
      ]);
  }
}

export async function changeBlogSecret(ground: Ground, secrets: Secrets, id: string, secret: string): Promise<void> {
  await ground.db.run('UPDATE blog SET secret = ?, rev = rev + 1 WHERE id = ?', [secrets.seal(secret.trim()), id]);
}
