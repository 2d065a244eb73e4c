import { type Closeness, groupPhrases, headOf } from '@grivo/core';
import type { Sql } from '../store/database.ts';
import { languageOfPhrases, measuresIn } from './keywords.ts';
import type { ItemRow, Unit } from './look.ts';

/** Phrases grouped at once, the first of those not taken and the last of those taken; of a longer list the rest comes later. */
const MOST_FRESH = 8_000;
const MOST_TAKEN = 8_000;

interface GroupedRow extends ItemRow {
  results: string[] | null;
  taken: number;
}

/**
 * The groups of a list of which a pipeline has taken nothing yet, each with the phrase it is called by first, in the order
 * of their first phrases. Phrases it took are grouped along, so that a phrase which joins a group that has its article
 * makes no second one.
 */
export async function groupsOf(sql: Sql, pipeline: string, source: string, closeness: Closeness): Promise<Unit[]> {
  const some = (taken: 0 | 1, order: string, most: number) =>
    sql.rows<GroupedRow>(
      `SELECT i.id, i.source, i.fingerprint, i.subject, i.fields, i.results, ${taken} AS taken FROM item i
       WHERE i.source = ? AND i.left_out IS NULL AND ${taken === 1 ? '' : 'NOT '}EXISTS (SELECT 1 FROM taken t WHERE t.pipeline = ? AND t.fingerprint = i.fingerprint)
       ORDER BY i.id ${order} LIMIT ?`,
      [source, pipeline, most],
    );
  const rows = [...(await some(1, 'DESC', MOST_TAKEN)), ...(await some(0, 'ASC', MOST_FRESH))].sort((a, b) =>
    a.id < b.id ? -1 : 1,
  );
  const language = languageOfPhrases(rows.map(({ subject }) => subject));
  return groupPhrases(
    rows.map(({ subject, results }) => ({ phrase: subject, results: results ?? [] })),
    { closeness, language },
  )
    .map((group) => group.map((i) => rows[i]!))
    .filter((group) => group.every(({ taken }) => Number(taken) === 0))
    .sort((a, b) => (a[0]!.id < b[0]!.id ? -1 : 1))
    .map((group) => {
      const head = headOf(
        group.map(({ subject, fields }) => ({ phrase: subject, volume: measuresIn(fields).volume })),
        language,
      );
      return [group[head]!, ...group.filter((_, i) => i !== head)];
    });
}
