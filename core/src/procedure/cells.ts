/** A cell that is to be written: the column's header, and the text it gets, still to be filled. */
export interface CellText {
  column: string;
  text: string;
}

export type CellTexts = { ok: true; cells: CellText[] } | { ok: false; line: number; problem: string };

/** Cells as people write them down, a line each: `Title: {{ title }}`. Blank lines are nothing; lines count from 1. */
export function cellTexts(written: string): CellTexts {
  const cells: CellText[] = [];
  for (const [i, line] of written.split('\n').entries()) {
    if (line.trim() === '') continue;
    const colon = line.indexOf(':');
    const column = line.slice(0, Math.max(0, colon)).trim();
    if (column === '' || /[{}]/.test(column))
      return { ok: false, line: i + 1, problem: `‘${line.trim().slice(0, 60)}’ names no column` };
    if (cells.some((cell) => cell.column === column))
      return { ok: false, line: i + 1, problem: `‘${column}’ is filled twice` };
    cells.push({ column, text: line.slice(colon + 1).trim() });
  }
  return cells.length === 0 ? { ok: false, line: 1, problem: 'no cell is filled' } : { ok: true, cells };
}
