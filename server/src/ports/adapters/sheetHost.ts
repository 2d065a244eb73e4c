import type { Failure } from '@grivo/core';
import { csvRows, TableRefused } from '../../formats/tables/csv.ts';
import { decoded, guessEncoding } from '../../formats/tables/decode.ts';
import type { Network } from '../../ground/network/network.ts';
import type { Effect } from '../outcome/outcome.ts';
import { bad, failureOf, good, type Result, refusalOf } from './port.ts';

export const ROW_TIME_LIMIT_MS = 15_000;
const MOST_BYTES = 20_000_000;

/** Cells by their column's header. */
export type RowCells = Readonly<Record<string, string>>;

/**
 * A sheet that takes rows: at its address GET gives it as CSV with a header, POST of `{"row": {"Column": "text"}}` adds a
 * row. Small scripts put this before any spreadsheet.
 */
export class SheetHost {
  constructor(private readonly network: Network) {}

  /** Adds a row, when the sheet has all of its columns. */
  async add(address: string, row: RowCells, signal: AbortSignal): Promise<Effect<number>> {
    const sheet = await this.read(address, signal);
    if (!sheet.ok) return { kind: 'not done', failure: sheet.failure };
    const column = Object.keys(row).find((name) => !sheet.value.header.includes(name));
    if (column !== undefined) {
      const there = sheet.value.header.filter((name) => name !== '');
      return { kind: 'not done', failure: { code: 'no-column', address, column, there } };
    }
    const outcome = await this.network.call({
      method: 'POST',
      address,
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ row }),
      timeLimitMs: ROW_TIME_LIMIT_MS,
      redirects: 0,
      signal,
    });
    const service = new URL(address).host;
    if (outcome.kind !== 'reply') {
      const { failure, acted } = failureOf(outcome, service, address, 'add a row');
      return { kind: acted === 'no' ? 'not done' : 'unknown', failure };
    }
    const refusal = refusalOf(outcome.reply, service);
    if (!refusal) return { kind: 'done', value: outcome.reply.status };
    return { kind: refusal.acted === 'no' ? 'not done' : 'unknown', failure: refusal.failure };
  }

  /** Whether the sheet has a row that says the same in all of these cells; null when it has none. */
  async find(address: string, row: RowCells, signal: AbortSignal): Promise<Result<number | null>> {
    const sheet = await this.read(address, signal);
    if (!sheet.ok) return sheet;
    const { header, rows } = sheet.value;
    const wanted = Object.entries(row).map(([name, text]) => ({ at: header.indexOf(name), text }));
    const there = rows.some((cells) => wanted.every(({ at, text }) => at >= 0 && (cells[at] ?? '').trim() === text));
    return good(there ? 200 : null);
  }

  private async read(address: string, signal: AbortSignal): Promise<Result<{ header: string[]; rows: string[][] }>> {
    const outcome = await this.network.call({
      method: 'GET',
      address,
      headers: { accept: 'text/csv' },
      timeLimitMs: ROW_TIME_LIMIT_MS,
      maxBytes: MOST_BYTES,
      signal,
    });
    const service = new URL(address).host;
    if (outcome.kind !== 'reply') return bad(read(failureOf(outcome, service, address, 'read the sheet').failure));
    const { status, body } = outcome.reply;
    if (status === 404 || status === 410)
      return bad({ code: 'page-unreadable', address, reason: `it answers ${status}` });
    const refusal = refusalOf(outcome.reply, service);
    if (refusal) return bad(read(refusal.failure));
    const rows: string[][] = [];
    const bytes = (async function* () {
      yield body;
    })();
    try {
      for await (const batch of csvRows(decoded(bytes, guessEncoding(body.subarray(0, 4_096))), ',', []))
        for (const { cells } of batch) rows.push(cells);
    } catch (error) {
      if (!(error instanceof TableRefused)) throw error;
      return bad({ code: 'page-unreadable', address, reason: error.problem });
    }
    const [header = [], ...rest] = rows;
    return good({ header: header.map((name) => name.trim()), rows: rest });
  }
}

/** Reading changes nothing, so what became of it is never in doubt. */
function read(failure: Failure): Failure {
  return failure.code === 'outcome-unknown'
    ? { code: 'service-unreachable', service: failure.service, detail: 'the connection broke while the sheet was read' }
    : failure;
}
