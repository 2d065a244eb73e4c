import type { Incident } from '@grivo/contract';
import { wordsOf } from '@grivo/core';
import { openIncidents } from '../../engine/incidents.ts';
import type { Sql } from '../../ground/store/database.ts';

/** Names of services and blogs, for sentences. */
export async function namer(sql: Sql): Promise<(id: string) => string> {
  const rows = await sql.rows<{ id: string; name: string }>(
    'SELECT id, name FROM service UNION ALL SELECT id, name FROM blog',
  );
  const names = new Map(rows.map((row) => [row.id, row.name]));
  return (id) => names.get(id) ?? id;
}

export async function incidentsInWords(sql: Sql): Promise<Incident[]> {
  const nameOf = await namer(sql);
  return (await openIncidents(sql)).map(({ failure, opened_at, briefs, ...incident }) => ({
    ...incident,
    openedAt: opened_at,
    briefs: Number(briefs),
    name: nameOf(incident.service),
    ...wordsOf(failure, nameOf),
  }));
}
