import type { BlogSlots, Slot, SlotStanding } from '@grivo/contract';
import {
  allSteps,
  CadenceRule,
  cadenceSentence,
  dryFrom,
  forecast,
  nextFreeSlot,
  type OutAs,
  placementFaults,
  slotsBetween,
} from '@grivo/core';
import type { Procedures } from '../../engine/briefState.ts';
import type { Ground } from '../../ground/ground.ts';
import type { Sql } from '../../ground/store/database.ts';
import { tellChange } from '../../ground/store/event.ts';
import { listBlogs } from '../blogs/repository.ts';
import { carrying, labelsOf } from '../labels/repository.ts';

interface FirmRow {
  article: string;
  blog: string;
  at: number;
  pinned: number;
  title: string;
  brief: string;
  brief_standing: string;
  state: string | null;
  as_: OutAs | null;
}

interface AheadRow {
  id: string;
  subject: string;
  standing: string;
  procedure_id: string;
  version: number;
  article: string | null;
  title: string | null;
}

/** Cover is looked for this far ahead. */
const COVER_DAYS = 56;
const MOST_AHEAD = 500;
const DAY = 86_400_000;
const MINUTE = 60_000;

/** A slot nothing was put in yet, with what is expected to come into it. */
const slotAhead = (at: number, foreseen: AheadRow | null): Slot => ({
  at,
  standing: foreseen ? (foreseen.standing as SlotStanding) : 'planned',
  article: foreseen?.article ?? null,
  brief: foreseen?.id ?? null,
  title: foreseen ? foreseen.title || foreseen.subject : null,
  pinned: false,
  foreseen: foreseen !== null,
  faults: [],
});

/**
 * The slots of every blog between two desk moments: what is placed, what is foreseen, what is empty.
 * @param label only of blogs that carry it
 */
export async function slotsOfBlogs(
  ground: Ground,
  procedures: Procedures,
  span: { from: number; to: number },
  label?: string,
): Promise<BlogSlots[]> {
  const now = ground.desk.now();
  const to = Math.max(span.to, now + COVER_DAYS * DAY);
  const [all, labels, firm, ahead] = await Promise.all([
    listBlogs(ground.db),
    labelsOf(ground.db, 'blog'),
    firmBetween(ground.db, Math.min(span.from, now) - 31 * DAY, to),
    aheadOf(ground.db, procedures),
  ]);
  const blogs = carrying(
    all.map((blog) => ({ ...blog, labels: labels(blog.id) })),
    label,
  );
  return blogs.map((blog): BlogSlots => {
    const rule = CadenceRule.parse(blog.cadence);
    const own = firm.filter((row) => row.blog === blog.id);
    const whole = forecast(rule, own, ahead.get(blog.id) ?? [], { now, from: Math.min(span.from, now), to });
    const made = new Set(slotsBetween(rule, span.from - DAY, to));
    const slots = whole
      .filter(({ at }) => at >= span.from && at < span.to)
      .map(({ at, firm: row, foreseen }): Slot => {
        if (!row) return slotAhead(at, foreseen);
        const others = own.filter((other) => other !== row);
        return {
          at,
          standing: standingOf(row),
          article: row.article,
          brief: row.brief,
          title: row.title,
          pinned: row.pinned === 1,
          foreseen: false,
          faults: row.pinned === 1 ? placementFaults(rule, others, at, [...made]) : [],
        };
      });
    // What has stopped covers nothing until it goes on.
    const counted = whole
      .filter(({ at }) => at >= now)
      .map((slot) => ({
        ...slot,
        firm: slot.firm && standingOf(slot.firm) === 'stopped' ? null : slot.firm,
        foreseen: slot.foreseen?.standing === 'stopped' ? null : slot.foreseen,
      }));
    return {
      blog: blog.id,
      name: blog.name,
      zone: rule.zone,
      slots,
      dryFrom: dryFrom(counted),
      ahead: counted.filter((slot) => slot.firm || slot.foreseen).length,
      cadenceSentence: cadenceSentence(rule),
      cadenceRev: blog.cadence_rev,
    };
  });
}

function standingOf(row: FirmRow): SlotStanding {
  if (row.state === 'live') return 'out';
  if (row.state === 'draft' && (row.as_ === 'draft' || row.as_ === 'review')) return 'draft';
  if (row.brief_standing === 'stopped' || row.brief_standing === 'held') return row.brief_standing;
  return 'ready';
}

/** Placements, and what went out without one (at once). */
async function firmBetween(sql: Sql, from: number, to: number): Promise<FirmRow[]> {
  const rows = await sql.rows<FirmRow>(
    `SELECT a.id AS article, l.blog, COALESCE(p.out_desk, l.due_desk) AS at, l.pinned, a.title, a.brief, b.standing AS brief_standing, p.state, p.as_
     FROM placement l JOIN article a ON a.id = l.article JOIN brief b ON b.id = a.brief LEFT JOIN publication p ON p.article = l.article AND p.blog = l.blog
     WHERE l.due_desk >= ? AND l.due_desk < ? AND a.trial = 0
     UNION ALL
     SELECT a.id, p.blog, p.out_desk, 0, a.title, a.brief, b.standing, p.state, p.as_
     FROM publication p JOIN article a ON a.id = p.article JOIN brief b ON b.id = a.brief LEFT JOIN placement l ON l.article = p.article AND l.blog = p.blog
     WHERE p.state IN ('draft', 'live', 'withdrawn') AND p.out_desk >= ? AND p.out_desk < ? AND l.article IS NULL AND a.trial = 0`,
    [from, to, from, to],
  );
  return rows.map((row) => ({ ...row, at: Number(row.at) }));
}

/** Briefs that will take a free slot of a blog when they are finished, by blog, the oldest first. */
async function aheadOf(sql: Sql, procedures: Procedures): Promise<Map<string, AheadRow[]>> {
  const rows = await sql.rows<AheadRow>(
    `SELECT b.id, b.subject, b.standing, p.procedure_id, p.version, a.id AS article, a.title
     FROM brief b JOIN brief_pin p ON p.brief = b.id AND p.main = 1 LEFT JOIN article a ON a.brief = b.id AND a.line = ''
     WHERE b.trial = 0 AND b.standing IN ('in work', 'held', 'stopped') AND NOT EXISTS (SELECT 1 FROM placement l WHERE l.article = a.id)
     ORDER BY b.id LIMIT ?`,
    [MOST_AHEAD],
  );
  const out = new Map<string, AheadRow[]>();
  for (const row of rows) {
    const { document } = await procedures.get(sql, row.procedure_id, row.version);
    for (const step of allSteps(document.steps)) {
      // Which blog it will be is not known before the article is, where its language or a field says so.
      if (step.kind !== 'publish' || step.off || step.when === 'at once' || step.by !== 'that blog') continue;
      out.set(step.blog, [...(out.get(step.blog) ?? []), row]);
    }
  }
  return out;
}

export type Moved = { kind: 'moved'; at: number } | { kind: 'faults'; faults: string[] } | { kind: 'gone' };

/**
 * Puts an article that has not gone out at another moment, pinned there. What breaks a rule is said and not done unless
 * it is meant. The blog's cadence rev is raised, so two people moving at once do not break what either checked.
 */
export async function moveArticle(
  ground: Ground,
  article: string,
  { blog, at, force }: { blog: string; at: number; force: boolean },
): Promise<Moved> {
  return ground.db.transaction(async (sql): Promise<Moved> => {
    const [row] = await sql.rows<{ cadence: unknown }>('SELECT cadence FROM blog WHERE id = ? FOR UPDATE', [blog]);
    const [placed] = await sql.rows<{ state: string | null; dated: number }>(
      'SELECT p.state, p.dated_desk IS NOT NULL AS dated FROM placement l LEFT JOIN publication p ON p.article = l.article AND p.blog = l.blog WHERE l.article = ? AND l.blog = ? FOR UPDATE',
      [article, blog],
    );
    // What its blog keeps until a moment is dated anew.
    if (!row || !placed || !(placed.state === null || placed.state === 'planned' || placed.dated === 1))
      return { kind: 'gone' };
    const rule = CadenceRule.parse(row.cadence);
    const others = await sql.rows<{ at: number }>(
      'SELECT due_desk AS at FROM placement WHERE blog = ? AND article <> ?',
      [blog, article],
    );
    const faults = placementFaults(
      rule,
      others.map((other) => ({ at: Number(other.at) })),
      at,
      slotsBetween(rule, at - DAY, at + DAY),
    );
    if (at <= ground.desk.now()) faults.push('that moment is past');
    if (faults.length > 0 && !(force && at > ground.desk.now())) return { kind: 'faults', faults };
    await sql.run('UPDATE placement SET due_desk = ?, pinned = 1 WHERE article = ? AND blog = ?', [at, article, blog]);
    await sql.run('UPDATE blog SET cadence_rev = cadence_rev + 1 WHERE id = ?', [blog]);
    await wake(sql, article);
    await sql.run("INSERT INTO event (id, noun, noun_id) VALUES (?, 'blog', ?), (?, 'article', ?)", [
      ground.ids(),
      blog,
      ground.ids(),
      article,
    ]);
    return { kind: 'moved', at };
  });
}

/**
 * Puts an article at the next slot of its blog that is free from a moment on; one that goes to several blogs moves on each.
 * @returns why it was left, where it was
 */
export async function moveToFreeSlot(ground: Ground, article: string, from: number): Promise<string | null> {
  const { db, desk } = ground;
  const placed = await db.rows<{ blog: string; name: string; cadence: unknown }>(
    'SELECT l.blog, b.name, b.cadence FROM placement l JOIN blog b ON b.id = l.blog WHERE l.article = ? ORDER BY l.blog',
    [article],
  );
  if (placed.length === 0) return 'It has no slot yet.';
  for (const { blog, name, cadence } of placed) {
    const others = await db.rows<{ at: number }>(
      'SELECT due_desk AS at FROM placement WHERE blog = ? AND article <> ?',
      [blog, article],
    );
    const at = nextFreeSlot(
      CadenceRule.parse(cadence),
      others.map((other) => ({ at: Number(other.at) })),
      // A slot of this very moment would be past before it is taken.
      Math.max(from, desk.now() + MINUTE),
    );
    if (at === null) return `${name} makes no slots.`;
    const moved = await moveArticle(ground, article, { blog, at, force: false });
    if (moved.kind === 'gone') return `It is on ${name} already, or going out there just now.`;
    if (moved.kind === 'faults') return `${name}: ${moved.faults.join('; ')}.`;
  }
  return null;
}

/** The brief's publish steps wait for the moments they were told; they wake and look at their slots anew. */
async function wake(sql: Sql, article: string): Promise<void> {
  await sql.run(
    "UPDATE step_run r JOIN article a ON a.brief = r.brief SET r.due_desk = 0 WHERE a.id = ? AND r.state = 'waiting' AND r.for_slot = 1",
    [article],
  );
}

/** Frees the slot of an article that went out on a blog before it, by hand; what waited for the slot finds it there. */
export async function outBeforeSlot(ground: Ground, article: string, blog: string): Promise<void> {
  await ground.db.transaction(async (sql) => {
    if ((await sql.run('DELETE FROM placement WHERE article = ? AND blog = ?', [article, blog])) === 0) return;
    await sql.run('UPDATE blog SET cadence_rev = cadence_rev + 1 WHERE id = ?', [blog]);
    await wake(sql, article);
    await tellChange(sql, ground, 'blog', blog);
  });
}
