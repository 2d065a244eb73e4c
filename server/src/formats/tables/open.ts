import { guessSeparator, SEPARATORS, type Separator } from '@grivo/core';
import type { ReadingRoom } from '../../ground/reading/room.ts';
import { csvRows, type TableFault } from './csv.ts';
import { decoded, type Encoding, guessEncoding } from './decode.ts';
import { ArrayRow, type TableRow } from './row.ts';
import { isWorkbook, openWorkbook, whyClosed } from './workbook.ts';

/** How a table is to be read; 'guess' looks. */
export interface TableReading {
  encoding: Encoding | 'guess';
  separator: Separator | 'guess';
  table: string | null;
}

export interface OpenTable {
  /** Names of the tables of a workbook; empty for a file of one table. */
  tables: string[];
  encoding: string;
  separator: Separator | null;
  rows: AsyncIterable<TableRow[]>;
  /** What was read past; complete once the rows are read. */
  faults: TableFault[];
}

export type Opened = { ok: true; table: OpenTable } | { ok: false; problem: string };

const SAMPLE = 65_536;
/** A workbook is read whole. */
const MOST_WORKBOOK = 60_000_000;

/** Opens a CSV, TSV, XLSX or ODS file by what it holds, whatever it is called. */
export async function openTable(
  reader: ReadingRoom,
  bytes: AsyncIterable<Uint8Array>,
  how: TableReading,
): Promise<Opened> {
  const parts = bytes[Symbol.asyncIterator]();
  const head: Uint8Array[] = [];
  let size = 0;
  while (size < SAMPLE) {
    const next = await parts.next();
    if (next.done) break;
    head.push(next.value);
    size += next.value.length;
  }
  const sample = Buffer.concat(head);
  if (sample.length === 0) return { ok: false, problem: 'it is empty' };
  const whole = async function* () {
    try {
      yield sample as Uint8Array;
      for (;;) {
        const next = await parts.next();
        if (next.done) return;
        yield next.value;
      }
    } finally {
      await parts.return?.();
    }
  };
  const locked = whyClosed(sample);
  const opened = locked
    ? { ok: false as const, problem: locked }
    : isWorkbook(sample)
      ? await workbook(reader, whole(), how.table)
      : textTable(sample, whole(), how);
  // What is not read on lets go of where it came from.
  if (!opened.ok) await parts.return?.();
  return opened;
}

/**
 * A table in a text.
 * @param sample its first bytes, by which it is told what it is
 */
export function textTable(sample: Buffer, bytes: AsyncIterable<Uint8Array>, how: Omit<TableReading, 'table'>): Opened {
  const encoding = how.encoding === 'guess' ? guessEncoding(sample.subarray(0, SAMPLE)) : how.encoding;
  const text = new TextDecoder(encoding).decode(sample.subarray(0, SAMPLE));
  if (/[\u0000-\u0008\u000e-\u001a]/.test(text.slice(0, 4_000)))
    return { ok: false, problem: 'it is neither a text nor a workbook that can be read' };
  if (/^\s*<(?:!doctype|html)/i.test(text)) return { ok: false, problem: 'it is a web page and no sheet' };
  // Some programs write the separator into a line of its own before the table.
  const named = /^sep=(.)[ \t]*\r?\n/i.exec(text);
  const said = SEPARATORS.find((one) => one === named?.[1]);
  const separator = how.separator === 'guess' ? (said ?? guessSeparator(text)) : how.separator;
  const faults: TableFault[] = [];
  const letters = decoded(bytes, encoding);
  return {
    ok: true,
    table: {
      tables: [],
      encoding,
      separator,
      faults,
      rows: csvRows(said === undefined ? letters : belowFirstLine(letters), separator, faults),
    },
  };
}

async function* belowFirstLine(text: AsyncIterable<string>): AsyncGenerator<string> {
  let below = false;
  for await (const part of text) {
    if (below) yield part;
    else if (part.includes('\n')) {
      below = true;
      yield part.slice(part.indexOf('\n') + 1);
    }
  }
}

async function workbook(reader: ReadingRoom, bytes: AsyncIterable<Uint8Array>, table: string | null): Promise<Opened> {
  const all: Uint8Array[] = [];
  let size = 0;
  for await (const part of bytes) {
    size += part.length;
    if (size > MOST_WORKBOOK)
      return { ok: false, problem: `a workbook may be ${MOST_WORKBOOK / 1_000_000} MB; save it as CSV instead` };
    all.push(part);
  }
  const read = await openWorkbook(reader, Buffer.concat(all), table);
  if (!read.ok) return read;
  const rows = async function* () {
    for await (const part of read.rows) yield part.map((cells) => new ArrayRow(cells));
  };
  return {
    ok: true,
    table: { tables: read.tables, encoding: 'workbook', separator: null, faults: read.faults, rows: rows() },
  };
}
