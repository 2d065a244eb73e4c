import type { Sql } from '../../ground/store/database.ts';

interface Line {
  id: string;
  brief: string;
  line: string;
}

/** Whether a step's path lies in a line of an article; the line of the whole brief has all. */
const liesIn = (path: string, line: string): boolean => line === '' || path === line || path.startsWith(`${line}/`);

/**
 * What articles cost, in millionths, by article. What a brief paid is shared out once among what it made: steps of a line
 * count for the article of the line, what all of them rest on for the first.
 */
export async function sharesOf(
  sql: Sql,
  articles: readonly { id: string; brief: string }[],
): Promise<ReadonlyMap<string, number>> {
  const out = new Map<string, number>();
  const briefs = [...new Set(articles.map(({ brief }) => brief))];
  if (briefs.length === 0) return out;
  // Most made one article each: what those cost is asked for before it is known which they are.
  const [made, paid] = await Promise.all([
    sql.rows<Line>('SELECT id, brief, line FROM article WHERE brief IN (?) ORDER BY id', [briefs]),
    sql.rows<{ brief: string; micros: number }>(
      'SELECT brief, SUM(micros) AS micros FROM ledger WHERE brief IN (?) GROUP BY brief',
      [briefs],
    ),
  ]);
  const lines = new Map<string, Line[]>();
  for (const line of made) lines.set(line.brief, [...(lines.get(line.brief) ?? []), line]);
  const add = (id: string, micros: number) => out.set(id, (out.get(id) ?? 0) + micros);
  const several = briefs.filter((brief) => (lines.get(brief)?.length ?? 0) > 1);
  for (const { brief, micros } of paid) {
    const own = lines.get(brief);
    if (own?.length === 1) add(own[0]!.id, Number(micros));
  }
  if (several.length > 0)
    for (const { brief, path, micros } of await sql.rows<{ brief: string; path: string | null; micros: number }>(
      `SELECT l.brief, r.path, SUM(l.micros) AS micros FROM ledger l LEFT JOIN step_run r ON r.id = l.step_run
       WHERE l.brief IN (?) GROUP BY l.brief, r.path`,
      [several],
    )) {
      const all = lines.get(brief)!;
      const own = all.filter(({ line }) => line !== '' && liesIn(path ?? '', line));
      const deepest = own.reduce<Line | null>((a, b) => (a === null || b.line.length > a.line.length ? b : a), null);
      add((deepest ?? all.find(({ line }) => line === '') ?? all[0]!).id, Number(micros));
    }
  return out;
}
