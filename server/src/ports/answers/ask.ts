import { createHash } from 'node:crypto';
import type { Failure, Micros } from '@grivo/core';
import type { Ground } from '../../ground/ground.ts';
import type { Sql } from '../../ground/store/database.ts';
import { reserve, settle, type Window, windowsFrom, windowsText } from '../money/limits.ts';
import type { ServiceRow } from '../services/entity.ts';
import { waitForTurn } from '../services/turns.ts';
import { bookUnknown, type LedgerEntry, writeLedger } from './booking.ts';

/** How a call to a paid service ended. */
export type Called =
  | {
      kind: 'answered';
      body: Buffer;
      micros: Micros;
      tokensIn: number;
      tokensOut: number /** Why the reply cannot be used; it is paid for but not kept. */;
      unusable: string | null;
    }
  | {
      kind: 'failed';
      failure: Failure /** Whether the service may have charged for it all the same. */;
      charged: 'no' | 'unknown';
    };

export interface Question {
  service: ServiceRow;
  /** Everything the reply depends on; the same question is not paid for twice. */
  request: unknown;
  /** Which of several possible replies: raised when the same question is asked 'again'. */
  draw: number;
  what: LedgerEntry['what'];
  /** The most the call can cost. */
  ceiling: Micros;
  stepRun: string;
  /** Ends waiting for a turn. */
  signal: AbortSignal;
  call: () => Promise<Called>;
}

export type Answered = { ok: true; body: Buffer; micros: Micros } | { ok: false; failure: Failure; unusable?: Buffer };

const POLL_MS = 120;

/**
 * Asks a paid service, or gives the answer kept from before. The money is reserved and the open question recorded in one
 * transaction before the call; the answer is committed when it arrives, with its cost, not with the step that asked. A
 * second asker waits for the first.
 * @param holder the worker that asks
 */
export async function ask(ground: Ground, holder: string, question: Question): Promise<Answered> {
  const digest = digestOf(question);
  let turn = false;
  const waitUntil = ground.now() + question.service.time_limit_ms * 2;
  for (;;) {
    const known = await kept(ground.db, digest);
    if (known) return { ok: true, body: known, micros: 0 };
    if (!turn) {
      turn = true;
      if (!(await waitForTurn(ground, question.service, question.signal)))
        return { ok: false, failure: { code: 'service-busy', service: question.service.id, retryAfterMs: null } };
    }
    const token = ground.ids();
    const opened = await openQuestion(ground, holder, question, digest, token);
    if (opened.kind === 'over')
      return {
        ok: false,
        failure: {
          code: 'limit-reached',
          scope: opened.window.scope,
          start: opened.window.start,
          capMicros: opened.capMicros,
          neededMicros: question.ceiling,
        },
      };
    if (opened.kind === 'opened') return finish(ground, question, digest, token, opened.windows);
    if (ground.now() > waitUntil)
      return { ok: false, failure: { code: 'service-busy', service: question.service.id, retryAfterMs: null } };
    await new Promise((resolve) => setTimeout(resolve, POLL_MS));
  }
}

export function digestOf({ service, request, draw }: Pick<Question, 'service' | 'request' | 'draw'>): string {
  return createHash('sha256')
    .update(JSON.stringify([service.id, service.model, request, draw]))
    .digest('hex');
}

async function kept(sql: Sql, digest: string): Promise<Buffer | null> {
  const [row] = await sql.rows<{ body: Buffer }>("SELECT body FROM answer WHERE digest = ? AND state = 'kept'", [
    digest,
  ]);
  return row?.body ?? null;
}

type Opened =
  | { kind: 'opened'; windows: Window[] }
  | { kind: 'taken' }
  | { kind: 'over'; window: Window; capMicros: Micros };

async function openQuestion(
  ground: Ground,
  holder: string,
  question: Question,
  digest: string,
  token: string,
): Promise<Opened> {
  return ground.db.transaction<Opened>(
    async (sql) => {
      // What it may cost stands there under any limit or none: should its outcome stay unknown, that is what is booked.
      const own = [digest, question.service.id, 'pending', holder, token, question.stepRun, question.ceiling];
      if (
        (await sql.run(
          'INSERT IGNORE INTO answer (digest, service, state, holder, token, step_run, reserved) VALUES (?)',
          [own],
        )) === 0
      )
        return { kind: 'taken' };
      const reserved = await reserve(sql, ground.desk.now(), question.stepRun, question.ceiling);
      if (reserved.kind === 'over') {
        await sql.run('DELETE FROM answer WHERE digest = ? AND token = ?', [digest, token]);
        return reserved;
      }
      if (reserved.windows.length > 0)
        await sql.run('UPDATE answer SET windows = ? WHERE digest = ?', [windowsText(reserved.windows), digest]);
      return { kind: 'opened', windows: reserved.windows };
    },
    async (sql) => {
      const [row] = await sql.rows<{ windows: string | null }>(
        'SELECT windows FROM answer WHERE digest = ? AND token = ?',
        [digest, token],
      );
      return row ? { kind: 'opened', windows: windowsFrom(row.windows) } : undefined;
    },
  );
}

async function finish(
  ground: Ground,
  question: Question,
  digest: string,
  token: string,
  windows: readonly Window[],
): Promise<Answered> {
  const called = await question.call();
  if (called.kind === 'failed') {
    await ground.db.transaction<boolean>(
      async (sql) => {
        if (called.charged === 'unknown') {
          await bookUnknown(sql, ground, digest, token);
          return true;
        }
        const gone = await sql.run("DELETE FROM answer WHERE digest = ? AND token = ? AND state = 'pending'", [
          digest,
          token,
        ]);
        if (gone === 1) await settle(sql, windows, question.ceiling, 0);
        return true;
      },
      async (sql) => ((await isPending(sql, digest, token)) ? undefined : true),
    );
    return { ok: false, failure: called.failure };
  }
  const recorded = await ground.db.transaction<boolean>(
    async (sql) => {
      const text =
        called.unusable === null
          ? await sql.run(
              "UPDATE answer SET state = 'kept', body = ?, micros = ? WHERE digest = ? AND token = ? AND state = 'pending'",
              [called.body, called.micros, digest, token],
            )
          : await sql.run("DELETE FROM answer WHERE digest = ? AND token = ? AND state = 'pending'", [digest, token]);
      // Not ours any more: a reaper took this process for dead and has booked the call as spent.
      if (text === 0) return false;
      await settle(sql, windows, question.ceiling, called.micros);
      await writeLedger(sql, ground, {
        service: question.service.id,
        step_run: question.stepRun,
        what: question.what,
        micros: called.micros,
        tokensIn: called.tokensIn,
        tokensOut: called.tokensOut,
        known: true,
      });
      return true;
    },
    async (sql) => ((await isPending(sql, digest, token)) ? undefined : true),
  );
  const micros = recorded ? called.micros : 0;
  if (called.unusable === null) return { ok: true, body: called.body, micros };
  return {
    ok: false,
    failure: { code: 'reply-unusable', service: question.service.id, problem: called.unusable },
    unusable: called.body,
  };
}

async function isPending(sql: Sql, digest: string, token: string): Promise<boolean> {
  return (
    (await sql.rows("SELECT 1 FROM answer WHERE digest = ? AND token = ? AND state = 'pending'", [digest, token]))
      .length > 0
  );
}
