import type { CatalogueSettings } from '@grivo/contract';
import { textOf } from '../documents/kind.ts';
import { fileAbout, fileBody } from '../files/repository.ts';
import { whyNot } from '../network/network.ts';
import type { LookPorts } from '../sources/kind.ts';
import { openTable } from '../tables/open.ts';
import { jsonRecords, MOST_RECORDS, type ReadRecords, type Record_, xmlRecords } from './records.ts';

const MOST_BYTES = 60_000_000;
const TIME_LIMIT_MS = 60_000;

export type OpenedCatalogue =
  | { ok: true; records: Record_[]; format: 'CSV' | 'XML' | 'JSON'; base: string }
  | { ok: false; problem: string; mend: string };

/** The records of a catalogue, from its address or the file that was uploaded. */
export async function openCatalogue(
  { ground, network }: LookPorts,
  settings: CatalogueSettings,
  signal: AbortSignal,
): Promise<OpenedCatalogue> {
  let bytes: Buffer;
  let mime = '';
  let base = 'https://none.invalid/';
  if (settings.address !== null) {
    const mend = 'Look at the address, or upload the file instead.';
    const outcome = await network.call({
      method: 'GET',
      address: settings.address,
      timeLimitMs: TIME_LIMIT_MS,
      maxBytes: MOST_BYTES,
      signal,
    });
    if (outcome.kind !== 'reply') return { ok: false, problem: whyNot(outcome), mend };
    if (outcome.reply.status !== 200) return { ok: false, problem: `it answers ${outcome.reply.status}`, mend };
    bytes = outcome.reply.body;
    mime = outcome.reply.headers['content-type'] ?? '';
    base = outcome.reply.address;
  } else {
    const file = settings.file === null ? null : await fileAbout(ground.db, settings.file);
    if (!file) return { ok: false, problem: 'there is no list yet', mend: 'Upload one, or give an address.' };
    if (file.bytes > MOST_BYTES)
      return {
        ok: false,
        problem: `it is larger than ${MOST_BYTES / 1_000_000} MB`,
        mend: 'Part it into several lists.',
      };
    bytes = (await fileBody(ground.db, file.digest))!;
  }
  const read = await recordsOf(bytes, mime, settings.format);
  if (!read.ok)
    return {
      ok: false,
      problem: read.problem,
      mend: 'Give a list as CSV, XML or JSON with a product in each row or element.',
    };
  if (read.records.length === 0)
    return { ok: false, problem: 'it lists nothing', mend: 'Look whether it is the right list.' };
  return { ok: true, records: read.records, format: read.format, base };
}

/** Records of a list in the form given, or the one it begins like. */
export async function recordsOf(
  bytes: Buffer,
  mime: string,
  format: CatalogueSettings['format'],
): Promise<ReadRecords> {
  const text = () => textOf(bytes, mime).replace(/^[\s\ufeff]+/, '');
  const head = text().slice(0, 200);
  const form = format !== 'guess' ? format : head.startsWith('<') ? 'XML' : /^[[{]/.test(head) ? 'JSON' : 'CSV';
  if (form === 'XML') {
    if (/^<(?:!doctype html|html)/i.test(head)) return { ok: false, problem: 'it is a web page, not a list' };
    return xmlRecords(text());
  }
  return form === 'JSON' ? jsonRecords(text()) : csvRecords(bytes);
}

async function csvRecords(bytes: Buffer): Promise<ReadRecords> {
  const opened = await openTable(inOne(bytes), { table: null, encoding: 'guess', separator: 'guess' });
  if (!opened.ok) return { ok: false, problem: opened.problem };
  let header: string[] | null = null;
  const records: Record_[] = [];
  for await (const batch of opened.table.rows)
    for (const row of batch) {
      if (row.blank || records.length >= MOST_RECORDS) continue;
      if (header === null) header = row.cells.map((cell, i) => cell.trim() || `column ${i + 1}`);
      else records.push(Object.fromEntries(header.map((name, i) => [name, row.cells[i] ?? ''])));
    }
  return header === null ? { ok: false, problem: 'it is empty' } : { ok: true, format: 'CSV', records };
}

async function* inOne(bytes: Buffer): AsyncGenerator<Uint8Array> {
  yield bytes;
}
