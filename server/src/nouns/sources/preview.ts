import { setImmediate } from 'node:timers/promises';
import type { IntakeRow, SheetPreview, SheetSettings } from '@grivo/contract';
import { rowReader } from '@grivo/core';
import { TableRefused } from '../../formats/tables/csv.ts';
import type { OpenTable } from '../../formats/tables/open.ts';
import type { TableRow } from '../../formats/tables/row.ts';
import { sha } from '../../ground/sha.ts';
import type { Sql } from '../../ground/store/database.ts';
import type { LookPorts } from '../../ports/tools.ts';
import { begunTable, foundReader, guessedSettings, openSheet } from './kinds/sheet.ts';

/** Rows a preview reads; longer sheets are looked at whole, but shown in part. */
const MOST_READ = 50_000;
const AT_ONCE = 500;
const SHOWN_FIRST = 40;
const SHOWN_LAST = 12;
const SHOWN_FAULTY = 200;

export type Previewed = { ok: true; preview: SheetPreview } | { ok: false; problem: string; mend: string };

/** A sheet as it would be read: its first and last rows, and every one with something wrong, at its cell. */
export async function previewSheet(
  ports: LookPorts,
  source: { id: string; name: string },
  given: SheetSettings,
  signal: AbortSignal,
): Promise<Previewed> {
  const opened = await openSheet(ports, given, signal);
  if (!opened.ok) return opened;
  try {
    return await shownTable(ports, source, given, opened.table);
  } catch (error) {
    if (!(error instanceof TableRefused)) throw error;
    return { ok: false, problem: error.problem, mend: 'Correct it there, or choose another separator.' };
  }
}

async function shownTable(
  ports: LookPorts,
  source: { id: string; name: string },
  given: SheetSettings,
  table: OpenTable,
): Promise<Previewed> {
  const { head, rows } = await begunTable(table);
  const settings = guessedSettings(given, head);
  const { read } = rowReader(settings);
  const found = foundReader(settings, source.name);
  const header = settings.header ?? 0;
  const firsts: Shown[] = [];
  const faulty: Shown[] = [];
  const lasts: Shown[] = [];
  let seen = 0;
  let count = 0;
  let usable = 0;
  for await (const batch of rows) {
    let done = 0;
    for (const row of batch) {
      // Others have their turn between.
      if (++done % AT_ONCE === 0) await setImmediate();
      if (row.blank) continue;
      seen++;
      if (row.n > header) count++;
      const shown =
        row.n <= header ? { row, faults: [], identity: null } : shownOf(row, read, found, settings.identity[0] ?? '');
      if (row.n > header && shown.faults.length === 0) usable++;
      if (firsts.length < SHOWN_FIRST) firsts.push(shown);
      else if (shown.faults.length > 0 && faulty.length < SHOWN_FAULTY) faulty.push(shown);
      else {
        lasts.push(shown);
        if (lasts.length > SHOWN_LAST) lasts.shift();
      }
    }
    if (seen >= MOST_READ) break;
  }
  const all = [...firsts, ...faulty, ...lasts].sort((a, b) => a.row.n - b.row.n);
  return {
    ok: true,
    preview: {
      settings,
      tables: table.tables,
      encoding: table.encoding,
      separator: table.separator,
      rows: count,
      usable,
      shown: await withItems(ports.ground.db, source.id, all),
      faults: table.faults.slice(0, 100),
    },
  };
}

interface Shown {
  row: TableRow;
  faults: IntakeRow['faults'];
  identity: string | null;
}

const MENDS: [RegExp, string][] = [
  [/^no title$/, 'Left out until it is filled in; it is looked at again.'],
  [/^nothing tells/, 'Fill the cell in, or choose another column to tell rows apart.'],
];

function shownOf(
  row: TableRow,
  read: ReturnType<typeof rowReader>['read'],
  found: ReturnType<typeof foundReader>,
  identity: string,
): Shown {
  const { faults } = read(row);
  const [item] = found([row]);
  const same = item?.leftOut && /the same .* as row/.exec(item.leftOut.detail);
  return {
    row,
    identity: item?.identity ?? null,
    faults: [
      ...faults.map(({ header, problem, reads }) => ({
        header,
        problem,
        reads,
        mend:
          MENDS.find(([pattern]) => pattern.test(problem))?.[1] ??
          (reads === null
            ? 'Correct it in the sheet, or read the column as text.'
            : `Write ${reads} in the sheet, or read the column as text.`),
      })),
      ...(same && item?.leftOut
        ? [
            {
              header: identity,
              problem: item.leftOut.detail.replace(/^row \d+: /, ''),
              reads: null,
              mend: 'Choose more columns to tell rows apart.',
            },
          ]
        : []),
    ],
  };
}

async function withItems(sql: Sql, source: string, shown: readonly Shown[]): Promise<IntakeRow[]> {
  const identities = shown.flatMap(({ identity }) => (identity === null ? [] : [sha(identity)]));
  const items =
    identities.length === 0
      ? []
      : await sql.rows<{
          id: string;
          identity: string;
          left_out: NonNullable<IntakeRow['item']>['leftOut'];
          left_detail: string;
          taken: number;
        }>(
          `SELECT i.id, i.identity, i.left_out, i.left_detail, EXISTS (SELECT 1 FROM taken t WHERE t.item = i.id) AS taken
     FROM item i WHERE i.source = ? AND i.identity IN (?)`,
          [source, identities],
        );
  const byIdentity = new Map(items.map((item) => [item.identity, item]));
  return shown.map(({ row, faults, identity }) => {
    const item = identity === null ? undefined : byIdentity.get(sha(identity));
    return {
      n: row.n,
      cells: row.cells.map((cell) => cell.slice(0, 300)),
      faults,
      item: item
        ? { id: item.id, leftOut: item.left_out, leftDetail: item.left_detail, taken: Number(item.taken) === 1 }
        : null,
    };
  });
}
