import type { SheetSettings } from '@grivo/contract';
import { type Failure, FirstMet, guessBelow, guessSheet, type RowReader, rowReader } from '@grivo/core';
import { TableRefused } from '../../../formats/tables/csv.ts';
import { type OpenTable, openTable } from '../../../formats/tables/open.ts';
import type { TableRow } from '../../../formats/tables/row.ts';
import { fileAbout, fileChunks } from '../../../ground/files/repository.ts';
import { spooled, takenFrom } from '../../../ground/network/spool.ts';
import type { LookPorts } from '../../../ports/tools.ts';
import type { Ended, Found, Looking, SourceReader } from '../kind.ts';

const MOST_BYTES = 100_000_000;
const TIME_LIMIT_MS = 60_000;
/** Rows made into items at once; between them others have their turn. */
const AT_ONCE = 500;

type OpenedSheet = { ok: true; table: OpenTable } | { ok: false; problem: string; mend: string };

/** Opens the file or the address of a sheet. */
export async function openSheet(
  { ground, network, reader }: LookPorts,
  settings: SheetSettings,
  signal: AbortSignal,
): Promise<OpenedSheet> {
  const mend = settings.address ? 'Look at the address, or upload the file instead.' : 'Upload it again.';
  let bytes: AsyncIterable<Uint8Array>;
  if (settings.address) {
    const call = {
      method: 'GET' as const,
      address: settings.address,
      timeLimitMs: TIME_LIMIT_MS,
      maxBytes: MOST_BYTES,
      headers: { accept: 'text/csv, application/vnd.openxmlformats-officedocument.spreadsheetml.sheet, */*' },
      signal,
    };
    const taken = await takenFrom(network, call, spooled);
    if (!taken.ok) return { ...taken, mend };
    bytes = taken.value;
  } else {
    const file = settings.file ? await fileAbout(ground.db, settings.file) : null;
    if (!file) return { ok: false, problem: 'there is no file yet', mend: 'Upload one, or give an address.' };
    bytes = fileChunks(ground.db, file.digest);
  }
  const opened = await openTable(reader, bytes, settings);
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

/** The first rows of a table, and all of them in batches with their numbers. */
export async function begunTable(table: OpenTable): Promise<{ head: string[][]; rows: AsyncIterable<TableRow[]> }> {
  const parts = table.rows[Symbol.asyncIterator]();
  const first: TableRow[] = [];
  while (first.length < SEEN_FOR_GUESS) {
    const next = await parts.next();
    if (next.done) break;
    first.push(...next.value);
  }
  const rows = async function* () {
    let n = 0;
    const numbered = (batch: TableRow[]) => {
      for (const row of batch) row.n = ++n;
      return batch;
    };
    try {
      yield numbered(first);
      for (;;) {
        const next = await parts.next();
        if (next.done) return;
        yield numbered(next.value);
      }
    } finally {
      // Whoever has seen enough leaves the rest unread.
      await parts.return?.();
    }
  };
  return { head: first.slice(0, SEEN_FOR_GUESS).map(({ cells }) => cells), rows: rows() };
}

/** Rows known by the same as one before, after which what tells rows apart is the wrong column. */
const MOST_REPEATS = 20_000;

/** A row as an item; what it says and brings along is made only when it is asked for. */
class FoundRow implements Found {
  readonly publishedDesk = null;

  constructor(
    private readonly of: { sheet: { name: string; address: string | null }; reader: RowReader },
    private readonly row: TableRow,
    /** Whether anything tells it apart; if not, it is known by all it says until that is mended. */
    private readonly named: boolean,
    /** How often rows known by the same have come, with this one. */
    private readonly times: number,
    readonly subject: string,
    readonly leftOut: Found['leftOut'],
  ) {}

  get identity(): string {
    const known = this.named ? this.of.reader.identityOf(this.row) : `unnamed ${JSON.stringify(this.row.cells)}`;
    return this.times === 1 ? known : `${known} again ${this.times}`;
  }

  get content(): string {
    return this.row.cells.join('\u001f');
  }

  fields(): Record<string, unknown> {
    const { fields, row } = this.of.reader.fieldsOf(this.row);
    return { ...fields, row, sheet: { name: this.of.sheet.name, row: this.row.n, address: this.of.sheet.address } };
  }
}

/**
 * The items of rows below the header; two rows under one identity are the first and a fault.
 * @param mostRepeats rows known by the same as one before, after which no more are read
 * @throws {TableRefused} when there are more
 */
export function foundReader(
  settings: SheetSettings,
  name: string,
  mostRepeats = Number.POSITIVE_INFINITY,
): (rows: readonly TableRow[]) => Found[] {
  const reader = rowReader(settings);
  const of = { sheet: { name, address: settings.address }, reader };
  const first = new FirstMet();
  /** How often identities were met that came again. */
  const again = new Map<string, number>();
  let repeats = 0;
  const what = settings.identity.join(' and ') || 'cells';
  return (rows) => {
    const out: Found[] = [];
    for (const row of rows) {
      const { n } = row;
      if (settings.header !== null && n <= settings.header) continue;
      if (row.blank) continue;
      const { apart, subject, faults } = reader.read(row);
      const known = apart ?? `unnamed ${JSON.stringify(row.cells)}`;
      const before = first.meet(known, n);
      let detail: string | null = null;
      let times = 1;
      if (before !== 0) {
        if (++repeats > mostRepeats)
          throw new TableRefused(
            `more than ${mostRepeats.toLocaleString('en-GB')} rows have the same ${what} as a row before; choose what tells them apart`,
          );
        times = (again.get(known) ?? 1) + 1;
        again.set(known, times);
        detail = `row ${n}: the same ${what} as row ${before}`;
      }
      const grave = detail === null && faults.length > 0 ? faults.find((fault) => fault.grave) : undefined;
      if (grave) detail = `row ${n}: ${grave.header}: ${grave.problem}`;
      const leftOut = detail === null ? null : { reason: 'unusable' as const, detail };
      out.push(new FoundRow(of, row, apart !== null, times, subject || `row ${n}`, leftOut));
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
    const unreadable = (error: unknown): Failure => {
      if (!(error instanceof TableRefused)) throw error;
      return {
        code: 'source-unreadable',
        source: source.id,
        reason: error.problem,
        mend: 'Correct it there, or split it.',
      };
    };
    try {
      const { head, rows } = await begunTable(opened.table);
      const settings = guessedSettings(source.settings, head);
      const found = foundReader(settings, source.name, MOST_REPEATS);
      const ended: Ended = { whole: true, partly: null };
      return {
        ok: true,
        ended,
        ...(source.settings.columns.length === 0 ? { settings } : {}),
        entries: (async function* (): AsyncGenerator<Found[]> {
          try {
            for await (const batch of rows)
              for (let at = 0; at < batch.length; at += AT_ONCE) yield found(batch.slice(at, at + AT_ONCE));
          } catch (error) {
            ended.partly = unreadable(error);
            ended.whole = false;
          }
        })(),
      };
    } catch (error) {
      return { ok: false, failure: unreadable(error) };
    }
  },
};
