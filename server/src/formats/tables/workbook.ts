import type { ReadingRoom } from '../../ground/reading/room.ts';
import { type TableFault, TableRefused } from './csv.ts';

export type ReadWorkbook =
  | { ok: true; tables: string[]; rows: AsyncIterable<string[][]>; faults: TableFault[] }
  | { ok: false; problem: string };

/** What a workbook may grow to when it is unpacked, in bytes. */
const MOST_UNPACKED = 250_000_000;

/** Whether a file is a workbook (XLSX, ODS, or ODS in one XML file), by its first bytes. */
export function isWorkbook(head: Uint8Array): boolean {
  return isPacked(head) || isFlat(head);
}

const isPacked = (head: Uint8Array): boolean =>
  head[0] === 0x50 && head[1] === 0x4b && (head[2] === 3 || head[2] === 5);

/** A workbook as one XML file (OpenDocument 1.2, part 1, 3.1.2). */
const isFlat = (head: Uint8Array): boolean =>
  /^(?:\ufeff)?\s*(?:<\?xml[^>]{0,200}\?>\s*)?<office:document\s/.test(
    new TextDecoder().decode(head.subarray(0, 2_000)),
  );

/** The first bytes of a compound file (MS-CFB 2.2), in which old workbooks and protected ones are kept. */
const COMPOUND = [0xd0, 0xcf, 0x11, 0xe0, 0xa1, 0xb1, 0x1a, 0xe1];

/**
 * Why a workbook cannot be opened, by its first bytes; null when it may.
 * A protected one keeps its packed content under this name (MS-OFFCRYPTO 2.3.4.4).
 */
export function whyClosed(head: Uint8Array): string | null {
  if (!COMPOUND.every((byte, i) => head[i] === byte)) return null;
  return Buffer.from(head).includes(Buffer.from('EncryptedPackage', 'utf16le'))
    ? 'it is protected by a password; save it without one'
    : 'it is a workbook of the old form (.xls); save it as .xlsx, .ods or CSV';
}

/**
 * Opens a table of an XLSX or ODS file; its rows come in parts. What would unpack to more than a quarter of a gigabyte is
 * refused before it is unpacked.
 * @param table the table's name, null for the first
 */
export async function openWorkbook(reader: ReadingRoom, bytes: Buffer, table: string | null): Promise<ReadWorkbook> {
  const size = isFlat(bytes) ? bytes.length : unpackedSize(bytes);
  if (size === null) return { ok: false, problem: 'it begins as a workbook, but its end is missing' };
  if (size > MOST_UNPACKED)
    return {
      ok: false,
      problem: `unpacked it would be ${Math.round(size / 1_000_000).toLocaleString('en-GB')} MB; the limit is ${MOST_UNPACKED / 1_000_000} MB`,
    };
  const parts = reader.parts('workbook', { bytes, table });
  const first = await parts.next();
  if (first.done) return first.value.ok ? { ok: false, problem: 'it has no table' } : first.value;
  const { tables } = first.value as { tables: string[] };
  const faults: TableFault[] = [];
  return {
    ok: true,
    tables,
    faults,
    rows: (async function* () {
      try {
        for (;;) {
          const next = await parts.next();
          if (!next.done) {
            if ('rows' in next.value) yield next.value.rows;
            else if ('fault' in next.value) faults.push(next.value.fault);
          } else if (next.value.ok) return;
          else throw new TableRefused(next.value.problem);
        }
      } finally {
        await parts.return({ ok: true, value: null });
      }
    })(),
  };
}

/** Bytes all members of a ZIP file unpack to by its directory (APPNOTE 4.3.12); null when there is no directory. */
export function unpackedSize(bytes: Buffer): number | null {
  const tail = bytes.lastIndexOf(Buffer.from([0x50, 0x4b, 5, 6]));
  if (tail < 0 || tail + 22 > bytes.length) return null;
  const entries = bytes.readUInt16LE(tail + 10);
  let at = bytes.readUInt32LE(tail + 16);
  let sum = 0;
  for (let n = 0; n < entries; n++) {
    if (at + 46 > bytes.length || bytes.readUInt32LE(at) !== 0x02014b50) return null;
    sum += bytes.readUInt32LE(at + 24);
    at += 46 + bytes.readUInt16LE(at + 28) + bytes.readUInt16LE(at + 30) + bytes.readUInt16LE(at + 32);
  }
  return sum;
}
