import type { Micros } from '@grivo/core';
import type { Ground } from '../../ground/ground.ts';
import type { Sql } from '../../ground/store/database.ts';

/** What a limit may be set for: all spending of a calendar month or day of the desk clock in UTC, or one brief's. */
export const SCOPES = ['month', 'day', 'article'] as const;
export type LimitScope = (typeof SCOPES)[number];

/** The counter a limit is counted on: of a month, a day, or a brief. */
export interface Window {
  scope: LimitScope;
  start: string;
}

export function monthOf(deskMs: number): string {
  return new Date(deskMs).toISOString().slice(0, 7);
}

function windowStart(scope: LimitScope, deskMs: number, brief: string): string {
  if (scope === 'article') return brief;
  return scope === 'month' ? monthOf(deskMs) : new Date(deskMs).toISOString().slice(0, 10);
}

export type Reserved = { kind: 'reserved'; windows: Window[] } | { kind: 'over'; window: Window; capMicros: Micros };

/**
 * Reserves money before a call, on every limit there is. Each counter is raised only where it stays under its cap, so the
 * limits hold whatever number of workers ask at once. What was spent before a limit was set counts.
 */
export async function reserve(sql: Sql, deskMs: number, stepRun: string, micros: Micros): Promise<Reserved> {
  const limits = await sql.rows<{ scope: LimitScope; cap: number }>(
    'SELECT scope, cap FROM spending_limit ORDER BY scope',
  );
  if (limits.length === 0) return { kind: 'reserved', windows: [] };
  const [run] = await sql.rows<{ brief: string }>('SELECT brief FROM step_run WHERE id = ?', [stepRun]);
  const windows: Window[] = [];
  for (const { scope, cap } of limits) {
    const window = { scope, start: windowStart(scope, deskMs, run?.brief ?? '') };
    await openWindow(sql, window, cap);
    const raised = await sql.run(
      'UPDATE limit_window SET reserved = reserved + ? WHERE scope = ? AND start = ? AND spent + reserved + ? <= cap',
      [micros, scope, window.start, micros],
    );
    if (raised === 0) {
      await settle(sql, windows, micros, 0);
      return { kind: 'over', window, capMicros: Number(cap) };
    }
    windows.push(window);
  }
  return { kind: 'reserved', windows };
}

/** The counter of a window, begun with what was spent in it before. */
async function openWindow(sql: Sql, { scope, start }: Window, cap: number): Promise<void> {
  const known = await sql.rows('SELECT 1 FROM limit_window WHERE scope = ? AND start = ?', [scope, start]);
  if (known.length > 0) return;
  const [where, values] = spentIn({ scope, start });
  await sql.run(
    `INSERT IGNORE INTO limit_window (scope, start, cap, spent) SELECT ?, ?, ?, COALESCE(SUM(micros), 0) FROM ledger WHERE ${where}`,
    [scope, start, cap, ...values],
  );
}

function spentIn({ scope, start }: Window): [string, unknown[]] {
  if (scope === 'article') return ['brief = ?', [start]];
  const from = Date.parse(scope === 'month' ? `${start}-01T00:00:00Z` : `${start}T00:00:00Z`);
  const to = scope === 'month' ? nextMonth(start) : from + 86_400_000;
  return ['at_desk >= ? AND at_desk < ?', [from, to]];
}

function nextMonth(month: string): number {
  const [year = 0, number = 0] = month.split('-').map(Number);
  return Date.UTC(year, number, 1);
}

/** Turns a reservation into what the call cost; 0 gives it back. */
export async function settle(sql: Sql, windows: readonly Window[], reserved: Micros, cost: Micros): Promise<void> {
  for (const { scope, start } of windows)
    await sql.run('UPDATE limit_window SET reserved = reserved - ?, spent = spent + ? WHERE scope = ? AND start = ?', [
      reserved,
      cost,
      scope,
      start,
    ]);
}

/** Adds what was paid without being reserved to what day and month have used, where that is counted. */
export async function spentBesides(sql: Sql, now: number, micros: Micros): Promise<void> {
  for (const scope of ['day', 'month'] as const)
    await sql.run('UPDATE limit_window SET spent = spent + ? WHERE scope = ? AND start = ?', [
      micros,
      scope,
      windowStart(scope, now, ''),
    ]);
}

/** Windows as one text, to be kept with an open question. */
export function windowsText(windows: readonly Window[]): string | null {
  return windows.length === 0 ? null : windows.map(({ scope, start }) => `${scope}=${start}`).join(' ');
}

export function windowsFrom(text: string | null): Window[] {
  return (text ?? '')
    .split(' ')
    .filter((part) => part !== '')
    .map((part) => {
      const [scope = '', start = ''] = part.split('=');
      return { scope: scope as LimitScope, start };
    });
}

/** Sets or, with null, lifts a limit; what is spent and reserved stays counted. */
export async function setLimit(ground: Ground, capMicros: Micros | null, scope: LimitScope = 'month'): Promise<void> {
  await ground.db.transaction(async (sql) => {
    if (capMicros === null) {
      await sql.run('DELETE FROM spending_limit WHERE scope = ?', [scope]);
      return;
    }
    await sql.run(
      'INSERT INTO spending_limit (scope, cap) VALUES (?, ?) ON DUPLICATE KEY UPDATE cap = VALUES(cap), rev = rev + 1',
      [scope, capMicros],
    );
    await sql.run(`UPDATE limit_window SET cap = ? WHERE scope = ?${scope === 'article' ? '' : ' AND start = ?'}`, [
      capMicros,
      scope,
      ...(scope === 'article' ? [] : [windowStart(scope, ground.desk.now(), '')]),
    ]);
  });
}

export interface LimitStanding {
  capMicros: Micros | null;
  spentMicros: Micros;
  /** Of it, what trials of procedures took, and what tests of services did. */
  trialsMicros: Micros;
  testsMicros: Micros;
  reservedMicros: Micros;
  month: string;
  dayCapMicros: Micros | null;
  articleCapMicros: Micros | null;
}

async function capsOf({ db }: Ground): Promise<(scope: LimitScope) => Micros | null> {
  const rows = await db.rows<{ scope: LimitScope; cap: number }>('SELECT scope, cap FROM spending_limit');
  const caps = new Map(rows.map(({ scope, cap }) => [scope, Number(cap)]));
  return (scope) => caps.get(scope) ?? null;
}

/** What the counter of the month says; null where nothing was counted yet. */
async function monthWindow({ db, desk }: Ground): Promise<{ spent: Micros; reserved: Micros } | null> {
  const [window] = await db.rows<{ spent: number; reserved: number }>(
    'SELECT spent, reserved FROM limit_window WHERE scope = ? AND start = ?',
    ['month', monthOf(desk.now())],
  );
  return window ? { spent: Number(window.spent), reserved: Number(window.reserved) } : null;
}

/**
 * The month's limit and what is used of it; null without a limit. The ledger is summed only where a limit is newer than
 * the last call.
 */
export async function monthUse(ground: Ground): Promise<{ cap: Micros; spent: Micros; reserved: Micros } | null> {
  const [caps, window] = await Promise.all([capsOf(ground), monthWindow(ground)]);
  const cap = caps('month');
  if (cap === null) return null;
  if (window) return { cap, ...window };
  const [where, values] = spentIn({ scope: 'month', start: monthOf(ground.desk.now()) });
  const [sum] = await ground.db.rows<{ micros: number | null }>(
    `SELECT SUM(l.micros) AS micros FROM ledger l WHERE ${where}`,
    values,
  );
  return { cap, spent: Number(sum?.micros ?? 0), reserved: 0 };
}

/**
 * The limits, and what is used of the month's. Without a counter the spending is summed from the ledger.
 * @param label what was spent is that of pipelines that carry it; limits are everybody's
 */
export async function limitStanding(ground: Ground, label?: string): Promise<LimitStanding> {
  const month = monthOf(ground.desk.now());
  const [where, values] = spentIn({ scope: 'month', start: month });
  const [cap, window, [sum]] = await Promise.all([
    capsOf(ground),
    monthWindow(ground),
    ground.db.rows<Record<'micros' | 'trials' | 'tests', number | null>>(
      `SELECT SUM(l.micros) AS micros, SUM(IF(b.trial = 1, l.micros, 0)) AS trials, SUM(IF(l.step_run IS NULL, l.micros, 0)) AS tests
       FROM ledger l LEFT JOIN brief b ON b.id = l.brief WHERE ${where}${label === undefined ? '' : " AND l.pipeline IN (SELECT of FROM labelled WHERE label = ? AND noun = 'pipeline')"}`,
      [...values, ...(label === undefined ? [] : [label])],
    ),
  ]);
  return {
    capMicros: cap('month'),
    spentMicros: (label === undefined ? window?.spent : null) ?? Number(sum?.micros ?? 0),
    trialsMicros: Number(sum?.trials ?? 0),
    testsMicros: Number(sum?.tests ?? 0),
    reservedMicros: window?.reserved ?? 0,
    month,
    dayCapMicros: cap('day'),
    articleCapMicros: cap('article'),
  };
}

/** Whether a limit that was reached lies behind: its day or month is over, or it was lifted. */
export async function limitIsPast(ground: Ground, window: { scope: string; start: string }): Promise<boolean> {
  const scope = SCOPES.find((one) => one === window.scope);
  if (!scope || scope === 'article') return false;
  return windowStart(scope, ground.desk.now(), '') !== window.start;
}
