import type { SheetRow } from '@grivo/contract';
import type { ProcedureDocument } from '@grivo/core';
import type { Sql } from '../../ground/store/database.ts';

/** Briefs of the queue that are told how many begin before them. */
const MOST_TOLD = 5_000;

/**
 * When the waiting briefs of a pipeline begin, and what each waits for: as they are let in, one after the other, no more at
 * once than the pipeline and its 'take' allow, and no closer than 'take' spaces them.
 */
export async function waitsOf(
  sql: Sql,
  { pipeline, document, now }: { pipeline: string; document: ProcedureDocument; now: number },
): Promise<(brief: string) => SheetRow['begins']> {
  const [[row], queue, [work]] = await Promise.all([
    sql.rows<{ open_limit: number; admitted_desk: number | null }>(
      'SELECT open_limit, admitted_desk FROM pipeline WHERE id = ?',
      [pipeline],
    ),
    sql.rows<{ id: string }>(
      "SELECT id FROM brief WHERE pipeline = ? AND trial = 0 AND standing = 'waiting' ORDER BY priority, id LIMIT ?",
      [pipeline, MOST_TOLD],
    ),
    sql.rows<{ n: number }>(
      "SELECT COUNT(*) AS n FROM brief WHERE pipeline = ? AND trial = 0 AND standing = 'in work'",
      [pipeline],
    ),
  ]);
  const take = document.steps.find((step) => step.kind === 'take');
  const limit = Math.min(row?.open_limit ?? 1, take?.atOnce ?? Number.POSITIVE_INFINITY);
  const room = limit - Number(work?.n ?? 0);
  const apart = (take?.apartMinutes ?? 0) * 60_000;
  const next = Math.max(now, row?.admitted_desk == null ? now : Number(row.admitted_desk) + apart);
  const places = new Map(queue.map(({ id }, at) => [id, at]));
  return (brief) => {
    const after = places.get(brief) ?? queue.length;
    if (after >= room) return { after, at: null, for: 'one in work to end' };
    if (apart === 0) return { after, at: null, for: 'its turn' };
    return { after, at: next + after * apart, for: next + after * apart <= now ? 'its turn' : 'the time between two' };
  };
}
