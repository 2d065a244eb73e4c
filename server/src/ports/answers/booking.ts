import type { Ground } from '../../ground/ground.ts';
import type { Sql } from '../../ground/store/database.ts';
import { settle, spentBesides, windowsFrom } from '../money/limits.ts';

interface PendingRow {
  service: string;
  step_run: string;
  reserved: number;
  windows: string | null;
}

/**
 * An open call whose outcome nobody will learn: what was reserved for it counts as spent, and the answer may be asked for
 * again. Does nothing when the call was settled in the meantime.
 */
export async function bookUnknown(sql: Sql, ground: Ground, digest: string, token: string): Promise<void> {
  const [row] = await sql.rows<PendingRow>(
    "SELECT service, step_run, reserved, windows FROM answer WHERE digest = ? AND token = ? AND state = 'pending' FOR UPDATE",
    [digest, token],
  );
  if (!row) return;
  await sql.run('DELETE FROM answer WHERE digest = ? AND token = ?', [digest, token]);
  await settle(sql, windowsFrom(row.windows), Number(row.reserved), Number(row.reserved));
  await writeLedger(sql, ground, {
    ...row,
    what: 'unknown',
    micros: Number(row.reserved),
    tokensIn: 0,
    tokensOut: 0,
    known: false,
  });
}

export interface LedgerEntry {
  service: string;
  step_run: string;
  what: 'text' | 'picture' | 'look-up' | 'sound' | 'unknown';
  micros: number;
  tokensIn: number;
  tokensOut: number;
  known: boolean;
}

/** What a call cost, in the books; of one that no step of a brief made, without either. */
export async function writeLedger(sql: Sql, ground: Ground, entry: LedgerEntry): Promise<void> {
  await sql.run(
    `INSERT INTO ledger (id, step_run, brief, pipeline, service, at_desk, what, micros, tokens_in, tokens_out, known)
     SELECT ?, r.id, b.id, b.pipeline, ?, ?, ?, ?, ?, ?, ? FROM (SELECT 1) one LEFT JOIN step_run r ON r.id = ? LEFT JOIN brief b ON b.id = r.brief`,
    [
      ground.ids(),
      entry.service,
      ground.desk.now(),
      entry.what,
      entry.micros,
      entry.tokensIn,
      entry.tokensOut,
      entry.known ? 1 : 0,
      entry.step_run,
    ],
  );
}

/** A test of a service is paid for like any other call: it stands in the books, and in what day and month have used. */
export async function bookTest(
  ground: Ground,
  entry: Pick<LedgerEntry, 'service' | 'what' | 'micros' | 'tokensIn' | 'tokensOut'>,
): Promise<void> {
  if (entry.micros === 0) return;
  const now = ground.desk.now();
  await ground.db.transaction(async (sql) => {
    await sql.run(
      'INSERT INTO ledger (id, service, at_desk, what, micros, tokens_in, tokens_out, known) VALUES (?, ?, ?, ?, ?, ?, ?, 1)',
      [ground.ids(), entry.service, now, entry.what, entry.micros, entry.tokensIn, entry.tokensOut],
    );
    await spentBesides(sql, now, entry.micros);
  });
}
