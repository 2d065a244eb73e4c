import type { ProcedureDocument } from '@grivo/core';
import type { Sql } from '../../ground/store/database.ts';
import { gatheredSubject } from '../briefs/subject.ts';
import { stillWhole } from './groups.ts';

export interface ItemRow {
  id: string;
  source: string;
  fingerprint: string;
  subject: string;
  fields: Record<string, unknown>;
}

/** Items that become one brief, the one it is called by first. */
export type Unit = readonly ItemRow[];

async function newItems(sql: Sql, pipeline: string, source: string, most: number, after: string): Promise<ItemRow[]> {
  if (most <= 0) return [];
  return sql.rows<ItemRow>(
    `SELECT i.id, i.source, i.fingerprint, i.subject, i.fields FROM item i
     WHERE i.source = ? AND i.left_out IS NULL AND i.gone = 0 AND i.id > ? AND NOT EXISTS (SELECT 1 FROM taken t WHERE t.pipeline = ? AND t.fingerprint = i.fingerprint) ORDER BY i.id LIMIT ?`,
    [source, after, pipeline, most],
  );
}

/** What is new, each with what it is taken together with: of a list that is grouped, the phrases of a group. */
export async function newUnits(
  sql: Sql,
  pipeline: string,
  source: string,
  most: number,
  after: string,
  groups: readonly Unit[] | undefined,
): Promise<Unit[]> {
  if (!groups) return (await newItems(sql, pipeline, source, most, after)).map((item) => [item]);
  if (most <= 0) return [];
  return stillWhole(
    sql,
    pipeline,
    groups.filter((unit) => cursorOf(unit) > after),
    most,
  );
}

/** Where a list is gone on from after a unit: units come in the order of their first items. */
export function cursorOf(unit: Unit): string {
  return unit.reduce((first, { id }) => (id < first ? id : first), unit[0]!.id);
}

/** What a brief is made of: the items, what it is called, and what it brings along. */
export interface Content {
  items: readonly ItemRow[];
  /** The ids of its items, those of one group together. */
  units: string[][];
  subject: string;
  fields: Record<string, unknown>;
}

/** One item with its fields; a group with those of the phrase it is called by, and the others as `phrases`. */
export function contentOf(items: Unit): Content {
  const [first, ...rest] = items;
  const fields = rest.length === 0 ? {} : { phrases: rest.map(({ subject }) => subject) };
  return {
    items,
    units: [items.map(({ id }) => id)],
    subject: first!.subject,
    fields: { ...first!.fields, ...fields },
  };
}

/** As many together as 'take' gathers: a brief of several has each with its own fields. */
export function gathered(contents: readonly Content[], n: number): Content[] {
  const out: Content[] = [];
  for (let at = 0; at < contents.length; at += n) {
    const [first, ...rest] = contents.slice(at, at + n);
    out.push(
      rest.length === 0
        ? first!
        : {
            items: [first!, ...rest].flatMap(({ items }) => items),
            units: [first!, ...rest].flatMap(({ units }) => units),
            subject: gatheredSubject([first!, ...rest].map(({ subject }) => subject)),
            fields: { items: [first!, ...rest].map(({ subject, fields }) => ({ subject, ...fields })) },
          },
    );
  }
  return out;
}

/** What the inputs of a procedure are given, each by name: what a person said, else what stands there otherwise. */
export function inputsOf(document: ProcedureDocument, said: Readonly<Record<string, string>>): Record<string, string> {
  return Object.fromEntries(
    (document.inputs ?? []).map(({ name, otherwise }) => [name, said[name] ?? otherwise ?? '']),
  );
}
