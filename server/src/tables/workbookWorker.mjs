// Reads one table of a workbook in a thread of its own: a file that runs away takes only the thread with it.
import { parentPort, workerData } from 'node:worker_threads';
import { read, utils } from '@e965/xlsx';

const { bytes, table, mostRows } = workerData;

/** A cell as text: days as ISO, figures as they are, what a formula came to. */
function textOf(cell) {
  if (cell === undefined || cell.v === undefined || cell.v === null || cell.t === 'e') return '';
  if (cell.v instanceof Date) {
    const iso = cell.v.toISOString();
    return iso.endsWith('T00:00:00.000Z') ? iso.slice(0, 10) : iso.slice(0, 16).replace('T', ' ');
  }
  return String(cell.v);
}

try {
  const book = read(bytes, { type: 'buffer', cellDates: true, UTC: true, dense: false, sheetRows: mostRows + 1 });
  const name = table !== null && book.SheetNames.includes(table) ? table : book.SheetNames[0];
  const sheet = book.Sheets[name];
  const rows = [];
  if (sheet?.['!ref']) {
    const area = utils.decode_range(sheet['!ref']);
    // A merged area says the same in every cell of it.
    const merged = new Map();
    for (const { s, e } of sheet['!merges'] ?? [])
      for (let r = s.r; r <= Math.min(e.r, mostRows); r++)
        for (let c = s.c; c <= Math.min(e.c, s.c + 200); c++) merged.set(`${r}:${c}`, s);
    for (let r = 0; r <= Math.min(area.e.r, mostRows - 1); r++) {
      const cells = [];
      for (let c = 0; c <= Math.min(area.e.c, 199); c++) {
        const from = merged.get(`${r}:${c}`) ?? { r, c };
        cells.push(textOf(sheet[utils.encode_cell(from)]));
      }
      rows.push(cells);
    }
  }
  parentPort.postMessage({ ok: true, tables: book.SheetNames, rows });
} catch (error) {
  parentPort.postMessage({ ok: false, problem: error instanceof Error ? error.message : String(error) });
}
