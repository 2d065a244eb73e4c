import type { CatalogueColumns, CatalogueSettings } from '@grivo/contract';
import { charsetOf, partsOfText, textIn, textOf } from '../documents/kind.ts';
import { TableRefused } from '../tables/csv.ts';
import { textTable } from '../tables/open.ts';
import { readWorkbook } from '../tables/readWorkbook.ts';
import { isWorkbook } from '../tables/workbook.ts';
import { guessColumns } from './columns.ts';
import { foundProducts } from './found.ts';
import { jsonRecords, MOST_RECORDS, type ReadRecords, type Record_, xmlRecords } from './records.ts';

/** A product as an item: what it brings along is there already. */
export interface FoundProduct {
  identity: string;
  subject: string;
  content: string;
  fields: Record<string, unknown>;
  leftOut: { reason: 'unusable' | 'filtered'; detail: string } | null;
}

export interface AboutCatalogue {
  format: 'CSV' | 'XML' | 'JSON';
  products: number;
  passing: number;
  /** Whether there are more than are read. */
  isCut: boolean;
  columns: CatalogueColumns;
  /** Names of columns with a sample of each. */
  named: { name: string; sample: string }[];
  /** The first that pass. */
  first: FoundProduct[];
}

export type CataloguePart = { about: AboutCatalogue } | { found: FoundProduct[] } | { problem: string };

const BATCH = 500;
const SHOWN = 5;

/** The first bytes of a list, or all, read anew each time: nobody holds them beside the text that is made of them. */
export type Bytes = (first?: number) => Buffer | Promise<Buffer>;

const HEAD = 65_536;

/** Reads a partner's list: first what it is, then its products in batches, those that pass in the order asked for. */
export async function* readProducts({
  bytes,
  mime,
  base,
  settings,
}: {
  bytes: Bytes;
  mime: string;
  base: string;
  settings: CatalogueSettings;
}): AsyncGenerator<CataloguePart> {
  const read = await recordsOf(bytes, mime, settings.format);
  if (!read.ok) return yield { problem: read.problem };
  const { records } = read;
  if (records.length === 0) return yield { problem: 'it lists nothing' };
  const columns = settings.columns ?? guessColumns(records);
  const found = foundProducts(records, { ...settings, columns }, base);
  const names = [...new Set(records.slice(0, 200).flatMap((record) => Object.keys(record)))];
  const passing = found.filter(({ leftOut }) => leftOut === null);
  yield {
    about: {
      format: read.format,
      products: records.length,
      passing: passing.length,
      isCut: records.length >= MOST_RECORDS,
      columns,
      named: names.map((name) => ({
        name,
        sample: (records.find((record) => record[name])?.[name] ?? '').slice(0, 120),
      })),
      first: passing.slice(0, SHOWN).map((one) => ({ ...one, fields: one.fields() })),
    },
  };
  for (let at = 0; at < found.length; at += BATCH)
    yield { found: found.slice(at, at + BATCH).map((one) => ({ ...one, fields: one.fields() })) };
}

/** Records of a list in the form given, or the one it begins like. */
export async function recordsOf(bytes: Bytes, mime: string, format: CatalogueSettings['format']): Promise<ReadRecords> {
  const head = withoutMark(textOf(await bytes(HEAD), mime)).slice(0, 200);
  const form = format !== 'guess' ? format : head.startsWith('<') ? 'XML' : /^[[{]/.test(head) ? 'JSON' : 'CSV';
  if (form === 'CSV') return tableRecords(await bytes());
  if (form === 'XML' && /^<(?:!doctype html|html)/i.test(head))
    return { ok: false, problem: 'it is a web page, not a list' };
  const all = await bytes();
  const charset = charsetOf(all, mime);
  if (form === 'XML') return xmlRecords(() => partsOfText(all, charset));
  return jsonRecords(charset === 'utf-8' ? all : Buffer.from(textIn(all, charset)));
}

const withoutMark = (text: string): string => text.replace(/^[\s\ufeff]+/, '');

async function tableRecords(bytes: Buffer): Promise<ReadRecords> {
  const records: Record_[] = [];
  let header: string[] | null = null;
  try {
    for await (const rows of rowsOf(bytes))
      for (const cells of rows) {
        if (cells.every((cell) => cell.trim() === '') || records.length >= MOST_RECORDS) continue;
        if (header === null) header = cells.map((cell, i) => cell.trim() || `column ${i + 1}`);
        else records.push(Object.fromEntries(header.map((name, i) => [name, cells[i] ?? ''])));
      }
  } catch (error) {
    if (error instanceof TableRefused) return { ok: false, problem: error.problem };
    throw error;
  }
  return header === null ? { ok: false, problem: 'it is empty' } : { ok: true, format: 'CSV', records };
}

async function* rowsOf(bytes: Buffer): AsyncGenerator<string[][]> {
  if (isWorkbook(bytes)) {
    for (const part of readWorkbook(bytes, null)) if ('rows' in part) yield part.rows;
    return;
  }
  if (bytes.length === 0) return;
  const opened = textTable(bytes.subarray(0, HEAD), inOne(bytes), { encoding: 'guess', separator: 'guess' });
  if (!opened.ok) throw new TableRefused(opened.problem);
  for await (const rows of opened.table.rows) yield rows.map(({ cells }) => cells);
}

async function* inOne(bytes: Buffer): AsyncGenerator<Uint8Array> {
  yield bytes;
}
