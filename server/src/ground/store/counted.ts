import { MOST_COUNTED } from '@grivo/contract';
import type { Sql } from './database.ts';

/** Something to be counted: what its number is known by, and which rows of which table. */
export interface Counted {
  key: string;
  /** From the table on: `item WHERE source = ?`. */
  from: string;
  parameters: unknown[];
}

/** Counts asked for in one statement; of more, more are sent. */
const MOST_AT_ONCE = 140;

/**
 * Rows of many kinds, each counted as far as anybody reads the number: one more than {@link MOST_COUNTED} at most, so that a
 * list takes no longer because a table has grown.
 */
export async function countEach(sql: Sql, wanted: readonly Counted[]): Promise<Map<string, number>> {
  const out = new Map<string, number>();
  for (let at = 0; at < wanted.length; at += MOST_AT_ONCE) {
    const some = wanted.slice(at, at + MOST_AT_ONCE);
    const rows = await sql.rows<{ k: string; n: number }>(
      some
        .map(({ from }) => `(SELECT ? AS k, COUNT(*) AS n FROM (SELECT 1 FROM ${from} LIMIT ${MOST_COUNTED + 1}) c)`)
        .join(' UNION ALL '),
      some.flatMap(({ key, parameters }) => [key, ...parameters]),
    );
    for (const { k, n } of rows) out.set(k, Number(n));
  }
  return out;
}
