import type { SheetSettings } from '@grivo/contract';
import Papa from 'papaparse';
import type { Sql } from '../store/database.ts';
import { sha } from './fingerprint.ts';
import type { LookPorts } from './kind.ts';
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
  const { head, rows } = await begunTable(opened.table);
  const settings = guessedSettings(given, head);
  const found = foundReader(settings, source.name);
  const names = ['standing', 'article', 'address', 'out on'];
  for await (const batch of rows) {
    const identities = batch.map((row) => found([row])[0]?.identity ?? null);
    const became = await becameOf(ports.ground.db, source.id, identities);
    const lines = batch.map(({ n, cells }, i) => {
      if (n === settings.header) return [...cells, ...names];
      const one = identities[i] === null ? undefined : became.get(sha(identities[i]!));
      const day = one?.outDesk ? new Date(one.outDesk).toISOString().slice(0, 10) : '';
      return [...cells, ...(one ? [one.standing ?? '', one.title ?? '', one.address ?? '', day] : ['', '', '', ''])];
    });
    yield `${Papa.unparse(lines, { escapeFormulae: true, newline: '\r\n' })}\r\n`;
  }
  return null;
}

async function becameOf(
  sql: Sql,
  source: string,
  identities: readonly (string | null)[],
): Promise<Map<string, Became>> {
  const known = identities.flatMap((identity) => (identity === null ? [] : [sha(identity)]));
  if (known.length === 0) return new Map();
  const rows = await sql.rows<Became>(
    `SELECT i.identity, b.standing, a.title, p.address, p.out_desk AS outDesk FROM item i
     JOIN taken t ON t.item = i.id JOIN brief b ON b.id = t.brief
     LEFT JOIN article a ON a.brief = b.id AND a.line = '' LEFT JOIN publication p ON p.article = a.id AND p.state = 'live'
     WHERE i.source = ? AND i.identity IN (?) ORDER BY t.brief`,
    [source, known],
  );
  return new Map(
    rows.map((row) => [row.identity, { ...row, outDesk: row.outDesk === null ? null : Number(row.outDesk) }]),
  );
}
