import type { SheetSettings } from '@grivo/contract';
import { guessBelow, guessSheet, rowReader } from '@grivo/core';
import { fileAbout, fileChunks } from '../../files/repository.ts';
import { type OpenTable, openTable } from '../../tables/open.ts';
import type { Found, Looking, LookPorts, SourceReader } from '../kind.ts';

const MOST_BYTES = 100_000_000;
const TIME_LIMIT_MS = 60_000;

type OpenedSheet = { ok: true; table: OpenTable } | { ok: false; problem: string; mend: string };

/** Opens the file or the address of a sheet. */
export async function openSheet(
  { ground, network }: LookPorts,
  settings: SheetSettings,
  signal: AbortSignal,
): Promise<OpenedSheet> {
  const mend = settings.address ? 'Look at the address, or upload the file instead.' : 'Upload it again.';
  let bytes: AsyncIterable<Uint8Array>;
  if (settings.address) {
    const outcome = await network.call({
      method: 'GET',
      address: settings.address,
      timeLimitMs: TIME_LIMIT_MS,
      maxBytes: MOST_BYTES,
      headers: { accept: 'text/csv, application/vnd.openxmlformats-officedocument.spreadsheetml.sheet, */*' },
      signal,
    });
    if (outcome.kind !== 'reply')
      return { ok: false, problem: outcome.kind === 'refused' ? outcome.reason : outcome.detail, mend };
    if (outcome.reply.status !== 200) return { ok: false, problem: `it answers ${outcome.reply.status}`, mend };
    const { body } = outcome.reply;
    bytes = (async function* () {
      yield body;
    })();
  } else {
    const file = settings.file ? await fileAbout(ground.db, settings.file) : null;
    if (!file) return { ok: false, problem: 'there is no file yet', mend: 'Upload one, or give an address.' };
    bytes = fileChunks(ground.db, file.digest);
  }
  const opened = await openTable(bytes, settings);
  return opened.ok ? opened : { ok: false, problem: opened.problem, mend };
}

/** Rows a guess is made from. */
const SEEN_FOR_GUESS = 60;

/** The settings with everything that was left to be guessed. */
export function guessedSettings(settings: SheetSettings, rows: readonly string[][]): SheetSettings {
  if (settings.columns.length > 0) return settings;
  const seen = rows.slice(0, SEEN_FOR_GUESS);
  const guessed = settings.header === null ? guessSheet(seen) : guessBelow(seen, settings.header);
  return { ...settings, ...guessed };
}

/** Rows with their numbers, from 1, blank ones left out but counted. */
export interface NumberedRow {
  n: number;
  cells: string[];
}

/** The first rows of a table, and all of them in batches with their numbers. */
export async function begunTable(table: OpenTable): Promise<{ head: string[][]; rows: AsyncIterable<NumberedRow[]> }> {
  const parts = table.rows[Symbol.asyncIterator]();
  const head: string[][] = [];
  while (head.length < SEEN_FOR_GUESS) {
    const next = await parts.next();
    if (next.done) break;
    head.push(...next.value);
  }
  const rows = async function* () {
    let n = 0;
    const numbered = (batch: string[][]) => batch.map((cells) => ({ n: ++n, cells }));
    yield numbered(head);
    for (;;) {
      const next = await parts.next();
      if (next.done) return;
      yield numbered(next.value);
    }
  };
  return { head, rows: rows() };
}

/** The items of rows below the header; two rows under one identity are the first and a fault. */
export function foundReader(settings: SheetSettings, name: string): (rows: readonly NumberedRow[]) => Found[] {
  const { read, fieldsOf } = rowReader(settings);
  /** Where each identity was met first; how often those were that came again. */
  const first = new Map<string, number>();
  const again = new Map<string, number>();
  const what = settings.identity.join(' and ') || 'cells';
  return (rows) => {
    const out: Found[] = [];
    for (const { n, cells } of rows) {
      if (settings.header !== null && n <= settings.header) continue;
      if (cells.every((cell) => cell.trim() === '')) continue;
      const { identity, subject, faults } = read(cells);
      // A row that nothing tells apart is known by all it says, until that is mended.
      let known = identity ?? `unnamed ${JSON.stringify(cells)}`;
      const before = first.get(known);
      let detail: string | null = null;
      if (before === undefined) first.set(known, n);
      else {
        const times = (again.get(known) ?? 1) + 1;
        again.set(known, times);
        known = `${known} again ${times}`;
        detail = `row ${n}: the same ${what} as row ${before}`;
      }
      const grave = detail === null && faults.length > 0 ? faults.find((fault) => fault.grave) : undefined;
      if (grave) detail = `row ${n}: ${grave.header}: ${grave.problem}`;
      out.push({
        identity: known,
        subject: subject || `row ${n}`,
        content: cells.join('\u001f'),
        fields: () => {
          const { fields, row } = fieldsOf(cells);
          return { ...fields, row, sheet: { name, row: n, address: settings.address } };
        },
        publishedDesk: null,
        leftOut: detail === null ? null : { reason: 'unusable', detail },
      });
    }
    return out;
  };
}

export const sheet: SourceReader<'sheet'> = {
  async look(ports, source, signal): Promise<Looking> {
    const opened = await openSheet(ports, source.settings, signal);
    if (!opened.ok)
      return {
        ok: false,
        failure: { code: 'source-unreadable', source: source.id, reason: opened.problem, mend: opened.mend },
      };
    const { head, rows } = await begunTable(opened.table);
    const settings = guessedSettings(source.settings, head);
    const found = foundReader(settings, source.name);
    return {
      ok: true,
      whole: true,
      ...(source.settings.columns.length === 0 ? { settings } : {}),
      entries: (async function* () {
        for await (const batch of rows) yield found(batch);
      })(),
    };
  },
};
