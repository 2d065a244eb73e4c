import { type Label, LabelledNoun } from '@grivo/contract';
import type { Ground } from '../../ground/ground.ts';
import type { Sql } from '../../ground/store/database.ts';
import { tellChange } from '../../ground/store/event.ts';
import { insertOnce } from '../../ground/store/once.ts';
import { labelEntity } from './entity.ts';

export async function listLabels(sql: Sql): Promise<Label[]> {
  const [labels, counts] = await Promise.all([
    sql.of(labelEntity).find({ select: { id: true, name: true }, order: { name: 'ASC' } }),
    sql.rows<{ label: string; noun: LabelledNoun; n: number }>(
      'SELECT label, noun, COUNT(*) AS n FROM labelled GROUP BY label, noun',
    ),
  ]);
  return labels.map(({ id, name }) => {
    const own = counts.filter(({ label }) => label === id);
    const on = Object.fromEntries(
      LabelledNoun.options.map((noun) => [noun, Number(own.find((one) => one.noun === noun)?.n ?? 0)]),
    );
    return { id, name, on: on as Label['on'] };
  });
}

/** @returns its id, or null when there is one of that name */
export async function createLabel(ground: Ground, name: string): Promise<string | null> {
  const id = ground.ids();
  return ground.db.transaction<string | null>(async (sql) => {
    if (!(await insertOnce(sql.of(labelEntity), { id, name }))) return null;
    await tellChange(sql, ground, 'label', id);
    return id;
  });
}

/** Puts a label on a thing or takes it off. */
export async function putLabel(
  ground: Ground,
  label: string,
  { noun, id, on }: { noun: LabelledNoun; id: string; on: boolean },
): Promise<void> {
  await ground.db.transaction(async (sql) => {
    await sql.run(
      on
        ? 'INSERT IGNORE INTO labelled (noun, of, label) VALUES (?, ?, ?)'
        : 'DELETE FROM labelled WHERE noun = ? AND of = ? AND label = ?',
      [noun, id, label],
    );
    await tellChange(sql, ground, noun, id);
    await tellChange(sql, ground, 'label', label);
  });
}

/** The labels of all things of a kind, by thing. */
export async function labelsOf(sql: Sql, noun: LabelledNoun): Promise<(id: string) => string[]> {
  const rows = await sql.rows<{ of: string; label: string }>(
    'SELECT of, label FROM labelled WHERE noun = ? ORDER BY label',
    [noun],
  );
  const by = new Map<string, string[]>();
  for (const { of, label } of rows) by.set(of, [...(by.get(of) ?? []), label]);
  return (id) => by.get(id) ?? [];
}

/** The labels of one thing. */
export async function labelsOn(sql: Sql, noun: LabelledNoun, id: string): Promise<string[]> {
  const rows = await sql.rows<{ label: string }>(
    'SELECT label FROM labelled WHERE noun = ? AND of = ? ORDER BY label',
    [noun, id],
  );
  return rows.map(({ label }) => label);
}

/** Only those things of a list that carry a label; all of them when none is asked for. */
export function carrying<Row extends { labels: string[] }>(rows: readonly Row[], label: string | undefined): Row[] {
  return rows.filter(({ labels }) => label === undefined || labels.includes(label));
}

/**
 * A condition of a statement: what is of a pipeline, or on a blog, that carries a label. Its parameters are the label as
 * often as it is named.
 */
export function ofLabel({ pipeline, blog, article }: { pipeline: string; blog?: string; article?: string }): string {
  const carries = (column: string, noun: LabelledNoun) =>
    `${column} IN (SELECT of FROM labelled WHERE label = ? AND noun = '${noun}')`;
  const any = [
    carries(pipeline, 'pipeline'),
    ...(blog === undefined ? [] : [carries(blog, 'blog')]),
    ...(article === undefined ? [] : [carries(article, 'article')]),
  ];
  return any.length === 1 ? any[0]! : `(${any.join(' OR ')})`;
}
