import type { Failure } from '@grivo/core';
import type { Ground } from '../../ground/ground.ts';
import type { Sql } from '../../ground/store/database.ts';
import type { Write } from '../../ground/store/write.ts';
import type { Effect, Result } from '../outcome/outcome.ts';

/** Something to be done outside, once. */
export interface Intended<T> {
  /** What makes it this act and no other, for ever: never a step or a round. */
  key: string;
  kind: 'upload' | 'create' | 'date' | 'turn live' | 'update' | 'withdraw' | 'tell' | 'add row';
  service: string;
  /** How long the other side may take to act after a call; after an unknown outcome Grivo looks only when this has passed. */
  timeLimitMs: number;
  call: () => Promise<Effect<T>>;
  /** When it is its turn to call. Until then nothing is written, and once the call has returned others have theirs. */
  turn?: Turn;
  /** Looks at the other side whether it was done; null when it was not. */
  find: () => Promise<Result<T | null>>;
  /** What is true once it is done, whatever becomes of the step meanwhile: committed with its end. */
  recording?: (value: T) => Write[];
}

/** @param first whether it goes before all others that wait */
export type Turn = <T>(act: () => Promise<T>, first: boolean) => Promise<T>;

export type Done<T> =
  | {
      kind: 'done';
      value: T;
      /** Whether what is true now was recorded by this call; else it was before, or by somebody else's settling. */
      recorded?: boolean;
    }
  | { kind: 'failed'; failure: Failure }
  | { kind: 'later'; inMs: number };

/** Time between the writing of an intent and its call that is allowed for, and how much of it may be used up. */
const SPARE_MS = 1_000;
const ROOM_MS = 500;
const MOST_TRIES = 5;

interface IntentRow {
  id: string;
  state: 'open' | 'done';
  token: string;
  result: unknown;
  wait_ms: number;
}

/** The step an act is done for. */
export interface Doing {
  run: { id: string };
  signal: AbortSignal;
  /** Whether somebody waits for it at a screen. */
  isWatched?: boolean;
  /** Makes sure the worker's lease outlasts a call of this length; false when it cannot, and then the call must not be made. */
  leaseOutlasts(ms: number): Promise<boolean>;
}

/**
 * Does something outside at most once. The intent is committed before the call; the call is made only while the worker's
 * lease outlasts it. When an earlier call's outcome is not known, Grivo waits until the other side can no longer act on
 * it, looks there, and repeats only what it did not find.
 */
export async function effect<T>(ground: Ground, context: Doing, intended: Intended<T>): Promise<Done<T>> {
  const known = await intentOf(ground.db, intended.key);
  if (known?.state === 'done') return { kind: 'done', value: known.result as T };
  if (known) {
    if (known.wait_ms > 0) return { kind: 'later', inMs: known.wait_ms };
    const found = await intended.find();
    if (!found.ok) return { kind: 'failed', failure: found.failure };
    if (found.value !== null)
      return (await end(ground, intended, known.token, found.value))
        ? { kind: 'done', value: found.value, recorded: true }
        : { kind: 'later', inMs: 0 };
  }
  const turn: Turn = intended.turn ?? ((act) => act());
  const called = await turn(() => callOnce(ground, context, intended, known), context.isWatched === true);
  if ('later' in called) return called.later;
  const { token, outcome } = called;
  switch (outcome.kind) {
    case 'done':
      return (await end(ground, intended, token, outcome.value))
        ? { kind: 'done', value: outcome.value, recorded: true }
        : { kind: 'later', inMs: 0 };
    case 'not done':
      await ground.db.run("DELETE FROM intent WHERE key_ = ? AND token = ? AND state = 'open'", [intended.key, token]);
      return { kind: 'failed', failure: outcome.failure };
    case 'unknown':
      // The step comes back, finds the intent open, and looks once the time limit has passed.
      return { kind: 'failed', failure: outcome.failure };
  }
}

/** Writes down that the call is made, and makes it; neither where it cannot be made in time. */
async function callOnce<T>(
  ground: Ground,
  context: Doing,
  intended: Intended<T>,
  known: IntentRow | null,
): Promise<{ token: string; outcome: Effect<T> } | { later: Done<T> }> {
  // Given up while it waited for its turn: nothing was done yet.
  if (context.signal.aborted) return { later: { kind: 'later', inMs: 0 } };
  if (!(await context.leaseOutlasts(intended.timeLimitMs))) return { later: { kind: 'later', inMs: 1_000 } };
  const before = ground.now();
  const token = await open(ground, context.run.id, intended, known);
  if (token === null) return { later: { kind: 'later', inMs: intended.timeLimitMs } };
  const late = await whyLate(ground, context, intended, token, before);
  return late ? { later: late } : { token, outcome: await intended.call() };
}

/**
 * The other side must have acted by the time others may look, and that time runs since the intent was written. When
 * writing it took longer than the room there is, as while the database is away, it is set anew before the call; a worker
 * that meanwhile lost its lease, or whose intent was taken over, does not call.
 * @param before when writing the intent began
 * @returns null when the call may be made now
 */
async function whyLate<T>(
  ground: Ground,
  context: Doing,
  { key, timeLimitMs }: Intended<T>,
  token: string,
  before: number,
): Promise<Done<T> | null> {
  let since = before;
  for (let tries = 0; tries < MOST_TRIES; tries++) {
    if (!(await context.leaseOutlasts(timeLimitMs))) return { kind: 'later', inMs: 1_000 };
    if (ground.now() - since < ROOM_MS) return null;
    since = ground.now();
    const ours = await ground.db.run(
      "UPDATE intent SET due_at = DATE_ADD(UTC_TIMESTAMP(3), INTERVAL ? MICROSECOND) WHERE key_ = ? AND token = ? AND state = 'open'",
      [(timeLimitMs + SPARE_MS) * 1_000, key, token],
    );
    if (ours === 0) return { kind: 'later', inMs: timeLimitMs };
  }
  return { kind: 'later', inMs: timeLimitMs };
}

async function intentOf(sql: Sql, key: string): Promise<IntentRow | null> {
  const [row] = await sql.rows<IntentRow>(
    'SELECT id, state, token, result, GREATEST(0, CEIL(TIMESTAMPDIFF(MICROSECOND, UTC_TIMESTAMP(3), due_at) / 1000)) AS wait_ms FROM intent WHERE key_ = ?',
    [key],
  );
  return row ? { ...row, wait_ms: Number(row.wait_ms) } : null;
}

/** Records the intent, or takes over one whose call is known not to have been acted on. Null when another worker was faster. */
async function open<T>(
  ground: Ground,
  stepRun: string,
  intended: Intended<T>,
  former: IntentRow | null,
): Promise<string | null> {
  const token = ground.ids();
  const micros = (intended.timeLimitMs + SPARE_MS) * 1_000;
  const [text, parameters] = former
    ? [
        "UPDATE intent SET token = ?, step_run = ?, due_at = DATE_ADD(UTC_TIMESTAMP(3), INTERVAL ? MICROSECOND) WHERE key_ = ? AND token = ? AND state = 'open'",
        [token, stepRun, micros, intended.key, former.token],
      ]
    : [
        "INSERT IGNORE INTO intent (id, key_, kind, step_run, state, token, due_at) VALUES (?, ?, ?, ?, 'open', ?, DATE_ADD(UTC_TIMESTAMP(3), INTERVAL ? MICROSECOND))",
        [ground.ids(), intended.key, intended.kind, stepRun, token, micros],
      ];
  const counted = await ground.db.settle(text, parameters, async (sql) =>
    (await sql.rows('SELECT 1 FROM intent WHERE key_ = ? AND token = ?', [intended.key, token])).length > 0
      ? true
      : undefined,
  );
  return counted ? token : null;
}

async function end<T>(
  ground: Ground,
  { key, recording }: Pick<Intended<T>, 'key' | 'recording'>,
  token: string,
  value: T,
): Promise<boolean> {
  return ground.db.transaction<boolean>(
    async (sql) => {
      const ours = await sql.run(
        "UPDATE intent SET state = 'done', result = ?, ended_at = UTC_TIMESTAMP(3) WHERE key_ = ? AND token = ?",
        [JSON.stringify(value), key, token],
      );
      if (ours !== 1) return false;
      for (const { text, parameters } of recording?.(value) ?? []) await sql.run(text, parameters);
      return true;
    },
    async (sql) =>
      (await sql.rows("SELECT 1 FROM intent WHERE key_ = ? AND token = ? AND state = 'done'", [key, token])).length > 0
        ? true
        : undefined,
  );
}

/** An act whose outcome nobody knows and whose step was given up: nobody would ever look what became of it. */
export interface LeftOpen {
  key: string;
  kind: Intended<unknown>['kind'];
  token: string;
}

/** Acts of some kinds left open by steps that were given up, of which the other side must have acted by now. */
export async function leftOpen(sql: Sql, kinds: readonly LeftOpen['kind'][]): Promise<LeftOpen[]> {
  return sql.rows<LeftOpen>(
    `SELECT i.key_ AS \`key\`, i.kind, i.token FROM intent i LEFT JOIN step_run r ON r.id = i.step_run
     WHERE i.state = 'open' AND i.due_at < UTC_TIMESTAMP(3) AND (r.id IS NULL OR r.state IN ('cancelled', 'done')) AND i.kind IN (?) ORDER BY i.due_at LIMIT 20`,
    [kinds],
  );
}

/** Looks what became of an act that was left open, and records it; one that was not done is forgotten. */
export async function settleLeft<T>(
  ground: Ground,
  { key, token }: Pick<LeftOpen, 'key' | 'token'>,
  { find, recording }: Pick<Intended<T>, 'find' | 'recording'>,
): Promise<void> {
  const found = await find();
  if (!found.ok) {
    // Asked again in a while.
    await ground.db.run(
      "UPDATE intent SET due_at = DATE_ADD(UTC_TIMESTAMP(3), INTERVAL 30 SECOND) WHERE key_ = ? AND token = ? AND state = 'open'",
      [key, token],
    );
    return;
  }
  if (found.value === null)
    await ground.db.run("DELETE FROM intent WHERE key_ = ? AND token = ? AND state = 'open'", [key, token]);
  else await end(ground, { key, ...(recording ? { recording } : {}) }, token, found.value);
}
