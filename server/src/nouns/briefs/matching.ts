import type { BriefAct, BriefStanding } from '@grivo/contract';
import { BEGUN, OPEN_BRIEFS } from '@grivo/core';
import type { Sql } from '../../ground/store/database.ts';

/** Briefs one request does something to; of more, whoever asked asks again. */
const MOST_AT_ONCE = 500;

/** How briefs may stand for a thing to be done to them. */
const FITS: Record<BriefAct, readonly BriefStanding[]> = {
  'set aside': OPEN_BRIEFS,
  'leave aside': ['set aside'],
  'bring back': ['set aside'],
  'put ahead': OPEN_BRIEFS,
  'begin now': ['waiting'],
  stop: ['waiting', 'in work', 'ready'],
  'go on': ['stopped'],
  'bring to the newest': BEGUN,
};

export interface Matching {
  pipeline: string;
  standing: readonly BriefStanding[];
  find: string;
}

/** What a subject must hold, each word of it, as conditions of a statement. */
export function subjectHolds(find: string): { where: string; parameters: string[] } {
  const words = find.trim().split(/\s+/).filter(Boolean);
  return {
    where: words.map(() => ' AND subject LIKE ?').join(''),
    parameters: words.map((word) => `%${word.replace(/[\\%_]/g, '\\$&')}%`),
  };
}

/** Briefs of a pipeline that match and to which a thing can be done, the first of them, and how many there are besides. */
export async function matchingBriefs(
  sql: Sql,
  act: BriefAct,
  { pipeline, standing, find }: Matching,
): Promise<{ ids: string[]; more: number }> {
  const fitting = FITS[act].filter((one) => standing.length === 0 || standing.includes(one));
  if (fitting.length === 0) return { ids: [], more: 0 };
  const { where, parameters } = subjectHolds(find);
  const older =
    act === 'bring to the newest'
      ? ' AND EXISTS (SELECT 1 FROM brief_pin p JOIN pipeline l ON l.id = b.pipeline WHERE p.brief = b.id AND p.main = 1 AND p.version < l.version)'
      : '';
  const seen = act === 'leave aside' ? ' AND seen = 0' : '';
  const from = `FROM brief b WHERE pipeline = ? AND trial = 0 AND standing IN (?)${where}${older}${seen}`;
  const given = [pipeline, fitting, ...parameters];
  const rows = await sql.rows<{ id: string }>(`SELECT b.id ${from} ORDER BY b.id LIMIT ${MOST_AT_ONCE + 1}`, given);
  const ids = rows.slice(0, MOST_AT_ONCE).map(({ id }) => id);
  if (rows.length <= MOST_AT_ONCE) return { ids, more: 0 };
  const [all] = await sql.rows<{ n: number }>(`SELECT COUNT(*) AS n ${from}`, given);
  return { ids, more: Number(all?.n ?? ids.length) - ids.length };
}

/** How many briefs of a pipeline have begun, have not ended, and go by an older version than the newest. */
export async function olderBriefs(sql: Sql, pipeline: string): Promise<number> {
  const [row] = await sql.rows<{ n: number }>(
    `SELECT COUNT(*) AS n FROM brief b JOIN pipeline l ON l.id = b.pipeline JOIN brief_pin p ON p.brief = b.id AND p.main = 1 AND p.version < l.version
     WHERE b.pipeline = ? AND b.trial = 0 AND b.standing IN (?)`,
    [pipeline, FITS['bring to the newest']],
  );
  return Number(row?.n ?? 0);
}
