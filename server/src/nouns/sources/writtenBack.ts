import type { KeywordSettings, SheetSettings } from '@grivo/contract';
import { opportunityBy } from '@grivo/core';
import Papa from 'papaparse';
import { TableRefused } from '../../formats/tables/csv.ts';
import { sha } from '../../ground/sha.ts';
import type { Sql } from '../../ground/store/database.ts';
import type { LookPorts } from '../../ports/tools.ts';
import { measuresIn } from './keywords.ts';
import { begunTable, foundReader, guessedSettings, openSheet } from './kinds/sheet.ts';

interface Became {
  identity: string;
  standing: string | null;
  title: string | null;
  address: string | null;
  outDesk: number | null;
}

/**
 * A sheet as CSV with what was made of each row behind it: how it stands, the title, the address and the day it went out.
 * Cells that a spreadsheet would take for formulas are marked as text.
 */
export async function* writtenBack(
  ports: LookPorts,
  source: { id: string; name: string },
  given: SheetSettings,
  signal: AbortSignal,
): AsyncGenerator<string, { problem: string; mend: string } | null> {
  const opened = await openSheet(ports, given, signal);
  if (!opened.ok) return opened;
  const begun = await begunTable(opened.table).catch((error: unknown) => {
    if (error instanceof TableRefused) return error.problem;
    throw error;
  });
  if (typeof begun === 'string') return { problem: begun, mend: 'Correct it there, or split it.' };
  const { head, rows } = begun;
  const settings = guessedSettings(given, head);
  const found = foundReader(settings, source.name);
  for await (const batch of rows) {
    const identities = batch.map((row) => {
      const identity = found([row])[0]?.identity;
      return identity === undefined ? null : sha(identity);
    });
    const known = identities.filter((identity) => identity !== null);
    const became = await becameOf(ports.ground.db, source.id, known);
    const lines = batch.map(({ n, cells }, i) => {
      if (n === settings.header) return [...cells, ...BECAME];
      return [...cells, ...becameCells(identities[i] === null ? undefined : became.get(identities[i]!))];
    });
    yield csv(lines);
  }
  return null;
}

/** Phrases read and written at once. */
const AT_ONCE = 1_000;

/** A keyword list as CSV, with what is known of each phrase and what was made of it; it can be read in again as it is. */
export async function* listWrittenBack(
  sql: Sql,
  source: string,
  { opportunity: formula }: KeywordSettings,
): AsyncGenerator<string> {
  const promises = opportunityBy(formula);
  yield csv([['phrase', 'volume', 'difficulty', 'opportunity', 'left out', ...BECAME]]);
  for (let after = ''; ; ) {
    const rows = await sql.rows<{
      id: string;
      identity: string;
      subject: string;
      fields: Record<string, unknown>;
      left_out: string | null;
      left_detail: string;
    }>(
      'SELECT id, identity, subject, fields, left_out, left_detail FROM item WHERE source = ? AND id > ? ORDER BY id LIMIT ?',
      [source, after, AT_ONCE],
    );
    if (rows.length === 0) return;
    const became = await becameOf(
      sql,
      source,
      rows.map(({ identity }) => identity),
    );
    yield csv(
      rows.map(({ identity, subject, fields, left_out, left_detail }) => {
        const { volume, difficulty } = measuresIn(fields);
        const left = left_out === null ? '' : `${left_out}${left_detail === '' ? '' : `: ${left_detail}`}`;
        const promise = promises(subject, { volume, difficulty });
        return [
          subject,
          volume ?? '',
          difficulty ?? '',
          promise === null ? '' : Math.round(promise),
          left,
          ...becameCells(became.get(identity)),
        ];
      }),
    );
    after = rows.at(-1)!.id;
  }
}

const BECAME = ['standing', 'article', 'address', 'out on'];

function becameCells(one: Became | undefined): string[] {
  if (!one) return BECAME.map(() => '');
  const day = one.outDesk ? new Date(one.outDesk).toISOString().slice(0, 10) : '';
  return [one.standing ?? '', one.title ?? '', one.address ?? '', day];
}

function csv(lines: (string | number)[][]): string {
  return `${Papa.unparse(lines, { escapeFormulae: true, newline: '\r\n' })}\r\n`;
}

async function becameOf(sql: Sql, source: string, identities: readonly string[]): Promise<Map<string, Became>> {
  if (identities.length === 0) return new Map();
  const rows = await sql.rows<Became>(
    `SELECT i.identity, IF(b.standing = 'out' AND p.state = 'draft', 'draft', b.standing) AS standing, a.title, p.address, IF(p.state = 'live', p.out_desk, NULL) AS outDesk FROM item i
     JOIN taken t ON t.item = i.id JOIN brief b ON b.id = t.brief
     LEFT JOIN article a ON a.brief = b.id AND a.line = '' LEFT JOIN publication p ON p.id = (SELECT q.id FROM publication q WHERE q.article = a.id AND q.state IN ('live', 'draft') ORDER BY q.state = 'live' DESC, q.id LIMIT 1)
     WHERE i.source = ? AND i.identity IN (?) ORDER BY t.brief`,
    [source, identities],
  );
  return new Map(
    rows.map((row) => [row.identity, { ...row, outDesk: row.outDesk === null ? null : Number(row.outDesk) }]),
  );
}
