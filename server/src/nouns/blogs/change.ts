import type { BlogMoves, BlogWords, FolderSettings, WaySettings } from '@grivo/contract';
import { CadenceRule, reflow, stepIdOf } from '@grivo/core';
import { loadBriefs, Procedures } from '../../engine/briefState.ts';
import type { Secrets } from '../../ground/config/secrets.ts';
import type { Ground } from '../../ground/ground.ts';
import type { Sql } from '../../ground/store/database.ts';
import { tellChange } from '../../ground/store/event.ts';

export interface BlogChange {
  name?: string | undefined;
  language?: string | undefined;
  timeLimitMs?: number | undefined;
  cadence?: CadenceRule | undefined;
  note?: string | undefined;
  archived?: boolean | undefined;
  address?: string | undefined;
  /** The house style its articles keep to; null for none. */
  style?: string | null | undefined;
  /** How a folder is written from now on; what is not named stays. */
  folder?: { [Name in keyof FolderSettings]?: FolderSettings[Name] | undefined } | undefined;
  /** What becomes of changes made here to articles that are out. */
  updates?: WaySettings['updates'] | undefined;
  /** Whether pictures go there in one width or in several. */
  pictures?: WaySettings['pictures'] | undefined;
  /** How many calls each worker makes to it at the same time. */
  callsAtOnce?: number | undefined;
  /** Whether links that lead out of our blogs are counted. */
  counts?: boolean | undefined;
  /** Whether finished articles take the slots of the cadence. */
  move?: boolean | undefined;
}

/**
 * Changes a blog as it was read at `rev`. Finished articles keep their moments unless it is said that they move.
 * @returns false when somebody else changed it meanwhile
 */
export async function changeBlog(ground: Ground, id: string, rev: number, change: BlogChange): Promise<boolean> {
  return ground.db.transaction(async (sql) => {
    const [row] = await sql.rows<{ rev: number }>('SELECT rev FROM blog WHERE id = ? FOR UPDATE', [id]);
    if (row?.rev !== rev) return false;
    await write(sql, ground, id, change);
    return true;
  });
}

/** Changes the words of a blog that are named and leaves all others as they are, whoever else changes those. */
export async function changeBlogWords(
  ground: Ground,
  id: string,
  { cadence, ...change }: BlogWords & Pick<BlogChange, 'counts'>,
): Promise<void> {
  await ground.db.transaction(async (sql) => {
    const [row] = await sql.rows<{ cadence: unknown }>('SELECT cadence FROM blog WHERE id = ? FOR UPDATE', [id]);
    if (!row) return;
    const whole = cadence ? { cadence: CadenceRule.parse({ ...CadenceRule.parse(row.cadence), ...cadence }) } : {};
    await write(sql, ground, id, { ...change, ...whole });
  });
}

async function write(sql: Sql, ground: Ground, id: string, change: BlogChange): Promise<void> {
  await sql.run(
    `UPDATE blog SET name = COALESCE(?, name), language = COALESCE(?, language), time_limit_ms = COALESCE(?, time_limit_ms), cadence = COALESCE(?, cadence),
       note = COALESCE(?, note), archived = COALESCE(?, archived), address = COALESCE(?, address), style = IF(?, ?, style), settings = JSON_MERGE_PATCH(settings, ?), cadence_rev = cadence_rev + 1, rev = rev + 1 WHERE id = ?`,
    [
      change.name ?? null,
      change.language ?? null,
      change.timeLimitMs ?? null,
      change.cadence ? JSON.stringify(change.cadence) : null,
      change.note ?? null,
      change.archived === undefined ? null : change.archived ? 1 : 0,
      change.address ?? null,
      change.style === undefined ? 0 : 1,
      change.style ?? null,
      JSON.stringify({
        ...(change.folder ? { folder: change.folder } : {}),
        ...(change.updates ? { updates: change.updates } : {}),
        ...(change.pictures ? { pictures: change.pictures } : {}),
        ...(change.callsAtOnce ? { callsAtOnce: change.callsAtOnce } : {}),
        ...(change.counts === undefined ? {} : { counts: change.counts }),
      }),
      id,
    ],
  );
  // Posts that are out are sent once more, as they would be sent now.
  if (change.pictures || change.counts !== undefined)
    await sql.run('UPDATE publication SET anew_at = UTC_TIMESTAMP(3) WHERE blog = ?', [id]);
  if (change.move) {
    const moved = new Map<string, number>();
    for (const { article, to } of await movesOf(sql, ground, id)) {
      await sql.run('UPDATE placement SET due_desk = ? WHERE article = ? AND blog = ?', [to, article, id]);
      moved.set(article, to);
    }
    await moveWaits(sql, id, moved);
  }
  await tellChange(sql, ground, 'blog', id);
}

/** What should have gone out longer ago than this is moved by hand. */
const LONG_AGO_MS = 60 * 86_400_000;

/** Where finished articles of a blog would go by its cadence, those that are not there: pinned ones and those going out stay. */
export async function movesOf(sql: Sql, ground: Ground, blog: string): Promise<BlogMoves['moves']> {
  const [row] = await sql.rows<{ cadence: unknown }>('SELECT cadence FROM blog WHERE id = ?', [blog]);
  if (!row) return [];
  const placed = await sql.rows<{ article: string; title: string; at: number; pinned: number; state: string | null }>(
    `SELECT l.article, a.title, l.due_desk AS at, l.pinned, p.state FROM placement l JOIN article a ON a.id = l.article
     LEFT JOIN publication p ON p.article = l.article AND p.blog = l.blog WHERE l.blog = ? AND l.due_desk >= ?`,
    [blog, ground.desk.now() - LONG_AGO_MS],
  );
  const open = placed.map((one) => ({
    article: one.article,
    at: Number(one.at),
    pinned: one.pinned === 1 || (one.state !== null && one.state !== 'planned'),
  }));
  const of = new Map(placed.map((one) => [one.article, one]));
  return reflow(CadenceRule.parse(row.cadence), open, ground.desk.now()).flatMap(({ article, at }) => {
    const from = Number(of.get(article)!.at);
    // Without a slot in two years it keeps the moment it had.
    return at === null || at === from ? [] : [{ article, title: of.get(article)!.title, from, to: at }];
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
    if (step?.kind === 'publish' && (step.blog === blog || step.by !== 'that blog'))
      await sql.run("UPDATE step_run SET due_desk = ? WHERE id = ? AND state = 'waiting' AND for_slot = 1", [
        moved.get(article),
        id,
      ]);
  }
}

/** Gives a blog a new secret, and the user name it belongs to where one is named. */
export async function changeBlogSecret(
  ground: Ground,
  secrets: Secrets,
  id: string,
  { secret, user }: { secret: string; user?: string | undefined },
): Promise<void> {
  await ground.db.run(
    'UPDATE blog SET secret = ?, settings = JSON_MERGE_PATCH(settings, ?), rev = rev + 1 WHERE id = ?',
    [secrets.seal(secret.trim()), JSON.stringify(user === undefined ? {} : { user }), id],
  );
}
