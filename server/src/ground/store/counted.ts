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
 * What was over {@link MOST_COUNTED} a moment ago, with until when it is taken to be so still: of what nobody reads the number
 * of, thousands of rows are not walked through for every list of everybody.
 */
const over = new WeakMap<Sql, Map<string, number>>();
const OVER_FOR = 3_000;
/** Counts that are remembered at most. */
const MOST_OVER = 10_000;

/**
 * Rows of many kinds, each counted as far as anybody reads the number: one more than {@link MOST_COUNTED} at most, so that a
 * list takes no longer because a table has grown. That there are so many is said again for some seconds without counting.
 */
export async function countEach(sql: Sql, wanted: readonly Counted[]): Promise<Map<string, number>> {
  const out = new Map<string, number>();
  const many = over.get(sql) ?? new Map<string, number>();
  over.set(sql, many);
  const now = performance.now();
  const asked = (one: Counted) => `${one.from} ${JSON.stringify(one.parameters)}`;
  const open = wanted.filter((one) => {
    const isOver = (many.get(asked(one)) ?? 0) > now;
    if (isOver) out.set(one.key, MOST_COUNTED + 1);
    return !isOver;
  });
  for (let at = 0; at < open.length; at += MOST_AT_ONCE) {
    const some = open.slice(at, at + MOST_AT_ONCE);
    for (const [key, n] of await counted(sql, some)) out.set(key, n);
  }
  if (many.size > MOST_OVER) many.clear();
  for (const one of open)
    if ((out.get(one.key) ?? 0) > MOST_COUNTED) many.set(asked(one), now + OVER_FOR);
    else many.delete(asked(one));
  return out;
}

async function counted(sql: Sql, some: readonly Counted[]): Promise<[string, number][]> {
  const rows = await sql.rows<{ k: string; n: number }>(
    some
      .map(({ from }) => `(SELECT ? AS k, COUNT(*) AS n FROM (SELECT 1 FROM ${from} LIMIT ${MOST_COUNTED + 1}) c)`)
      .join(' UNION ALL '),
    some.flatMap(({ key, parameters }) => [key, ...parameters]),
  );
  return rows.map(({ k, n }) => [k, Number(n)]);
}
