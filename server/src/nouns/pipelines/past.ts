import type { Past } from '@grivo/contract';
import { kindOf, type Step } from '@grivo/core';
import type { Sql } from '../../ground/store/database.ts';

/** Figures a word is shown with. */
const MOST_FIGURES = 40;
/** Newest briefs looked through for them. */
const MOST_BRIEFS = 200;

/**
 * What the last runs of a step gave, as far as it tells what another value of one of its words would have done: a figure
 * or what was looked at a brief, newest first. Trials do not count.
 */
export async function pastOf(sql: Sql, pipeline: string, step: Step): Promise<Past> {
  const { past: measures = [], pastFilter: filter } = kindOf(step);
  if (measures.length === 0 && !filter) return { past: {}, seen: [] };
  const rows = await sql.rows<{ brief: string; gave: Record<string, unknown> }>(
    `SELECT b.id AS brief, o.proposed AS gave
     FROM (SELECT id FROM brief WHERE pipeline = ? AND trial = 0 ORDER BY id DESC LIMIT ${MOST_BRIEFS}) b
     JOIN step_run r ON r.brief = b.id AND (r.path = ? OR r.path LIKE CONCAT('%/', ?)) AND r.kind = ?
     JOIN output o ON o.step_run = r.id ORDER BY b.id DESC, r.round DESC`,
    [pipeline, step.id, step.id, step.kind],
  );
  const latest = new Map<string, Record<string, unknown>>();
  for (const { brief, gave } of rows) if (!latest.has(brief)) latest.set(brief, gave);
  const first = <T>(of: (gave: Record<string, unknown>) => T | null): T[] =>
    [...latest.values()]
      .map(of)
      .filter((value) => value !== null)
      .slice(0, MOST_FIGURES);
  return {
    past: Object.fromEntries(measures.map(({ field, figure }) => [field, first(figure)])),
    seen: filter ? first((gave) => ({ ...filter.seen(gave) })).filter((seen) => Object.keys(seen).length > 0) : [],
  };
}
