import type { Offered, OfferedUnit } from '@grivo/contract';
import { beginning, type ProcedureDocument, textOf } from '@grivo/core';
import type { Sql } from '../../ground/store/database.ts';
import { groupsBy } from './groups.ts';
import type { TakePorts } from './look.ts';
import { type Content, contentOf, gathered, type ItemRow, newUnits } from './units.ts';

/** Of each source, as many as one would choose among. */
const MOST_EACH = 8;

/**
 * What a pipeline would make briefs of next by a procedure that need not be saved, as it would: of a grouped list in groups,
 * and as many together as 'take' gathers. Of a source with nothing new, what stands in it all the same, said to be taken or
 * left out.
 */
export async function offeredTo(ports: TakePorts, pipeline: string, document: ProcedureDocument): Promise<Offered> {
  const { db } = ports.ground;
  const take = document.steps.find((step) => step.kind === 'take');
  if (!take) return { offered: [], examples: {} };
  const n = take.gather ?? 1;
  const groups = await groupsBy(ports, pipeline, document);
  const out: OfferedUnit[] = [];
  let shown: Content | null = null;
  for (const source of take.sources) {
    const fresh = (await newUnits(db, pipeline, source, MOST_EACH * n, '', groups.get(source))).map(contentOf);
    const contents = gathered(fresh, n);
    shown ??= contents[0] ?? null;
    out.push(...contents.map((content) => offered(source, content, 'new')));
    if (fresh.length > 0) continue;
    const others = (await oldItems(db, pipeline, source)).map((row) => ({ row, content: contentOf([row]) }));
    out.push(...others.map(({ row, content }) => offered(source, content, row.left_out ? 'left out' : 'taken')));
    shown ??= others[0]?.content ?? null;
  }
  return { offered: out, examples: shown ? examplesOf(shown) : {} };
}

const LONGEST_EXAMPLE = 60;

function examplesOf({ subject, fields }: Content): Record<string, string> {
  return Object.fromEntries(
    Object.entries({ subject, ...fields }).flatMap(([name, value]) => {
      const text = textOf(value).replace(/\s+/g, ' ').trim();
      return text === '' ? [] : [[name, beginning(text, LONGEST_EXAMPLE)]];
    }),
  );
}

function offered(source: string, { units, subject }: Content, standing: OfferedUnit['standing']): OfferedUnit {
  return { source, subject, units, standing };
}

/** What is not new in a source: taken before first, then what is left out. */
async function oldItems(
  sql: Sql,
  pipeline: string,
  source: string,
): Promise<(ItemRow & { left_out: string | null })[]> {
  return sql.rows(
    `SELECT i.id, i.source, i.fingerprint, i.subject, i.fields, i.left_out FROM item i
     WHERE i.source = ? AND (i.left_out IS NOT NULL OR EXISTS (SELECT 1 FROM taken t WHERE t.pipeline = ? AND t.fingerprint = i.fingerprint))
     ORDER BY i.left_out IS NOT NULL, i.id LIMIT ?`,
    [source, pipeline, MOST_EACH],
  );
}

/**
 * What a brief of named items would be made of, as a run would make it of them.
 * @param units items that stand together, in groups; several groups are gathered
 * @returns null when one of them is gone
 */
export async function contentNamed(sql: Sql, units: readonly (readonly string[])[]): Promise<Content | null> {
  const ids = units.flat();
  const rows = new Map(
    (await sql.rows<ItemRow>('SELECT id, source, fingerprint, subject, fields FROM item WHERE id IN (?)', [ids])).map(
      (row) => [row.id, row],
    ),
  );
  if (ids.some((id) => !rows.has(id))) return null;
  return gathered(
    units.map((unit) => contentOf(unit.map((id) => rows.get(id)!))),
    units.length,
  )[0]!;
}
