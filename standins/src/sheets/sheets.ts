import { Router } from 'express';
import type { Journal } from '../ground/journal.ts';
import type { Troubles } from '../ground/trouble.ts';

/** A sheet as it is first published. */
export interface SheetMaterial {
  slug: string;
  title: string;
  /** Lines above the header. */
  above: string[][];
  header: string[];
  rows: string[][];
}

/** Something done to a sheet by a person. */
export type SheetAct =
  | { sheet: string; act: 'add'; cells: string[] }
  | { sheet: string; act: 'change'; row: number; cells: string[] }
  | { sheet: string; act: 'reverse' };

/** Published sheets: as CSV at an address, and as a small page where rows are added and changed. */
export class Sheets {
  constructor(
    readonly material: readonly SheetMaterial[],
    private readonly acts: Journal<SheetAct>,
  ) {}

  rows(slug: string): string[][] {
    let rows = this.material.find((sheet) => sheet.slug === slug)?.rows.map((row) => [...row]) ?? [];
    for (const act of this.acts.entries) {
      if (act.sheet !== slug) continue;
      if (act.act === 'add') rows.push(act.cells);
      else if (act.act === 'change') rows[act.row] = act.cells;
      else rows = rows.reverse();
    }
    return rows;
  }

  do(act: SheetAct): void {
    this.acts.add(act);
  }
}

export function sheetHost(sheets: Sheets, troubles: Troubles): Router {
  const router = Router();
  router.get(
    '/sheets/:slug.csv',
    troubles.around('sheets', (request) => {
      const sheet = sheets.material.find(({ slug }) => slug === request.params['slug']);
      if (!sheet) return { status: 404, type: 'text/plain', body: 'There is no such sheet.' };
      const lines = [...sheet.above, sheet.header, ...sheets.rows(sheet.slug)];
      return { status: 200, type: 'text/csv', body: lines.map((cells) => cells.map(quoted).join(',')).join('\r\n') };
    }),
  );
  // At one address the sheet is read, and takes rows by their columns' names.
  router.get(
    '/sheets/:slug/rows',
    troubles.around('sheets', (request) => {
      const sheet = sheets.material.find(({ slug }) => slug === request.params['slug']);
      if (!sheet) return { status: 404, type: 'text/plain', body: 'There is no such sheet.' };
      const lines = [sheet.header, ...sheets.rows(sheet.slug)];
      return { status: 200, type: 'text/csv', body: lines.map((cells) => cells.map(quoted).join(',')).join('\r\n') };
    }),
  );
  router.post(
    '/sheets/:slug/rows',
    troubles.around('sheets', (request) => {
      const sheet = sheets.material.find(({ slug }) => slug === request.params['slug']);
      if (!sheet) return { status: 404, type: 'text/plain', body: 'There is no such sheet.' };
      const { row } = request.body as { row?: Record<string, unknown> };
      const unknown = Object.keys(row ?? {}).find((name) => !sheet.header.includes(name));
      if (!row || unknown !== undefined)
        return { status: 422, type: 'text/plain', body: row ? `There is no column ${unknown}.` : 'There is no row.' };
      sheets.do({ sheet: sheet.slug, act: 'add', cells: sheet.header.map((name) => String(row[name] ?? '')) });
      return { status: 201, type: 'text/plain', body: '' };
    }),
  );
  router.get('/sheets/:slug', (request, response, next) => {
    const sheet = sheets.material.find(({ slug }) => slug === request.params['slug']);
    if (!sheet) return next();
    response.type('text/html').send(page(sheet, sheets.rows(sheet.slug)));
  });
  router.post('/sheets/:slug', (request, response, next) => {
    const sheet = sheets.material.find(({ slug }) => slug === request.params['slug']);
    if (!sheet) return next();
    const { act, row, cells } = request.body as { act?: string; row?: number | string; cells?: string[] };
    const typed = sheet.header.map((_, i) => String(cells?.[i] ?? ''));
    if (act === 'reverse') sheets.do({ sheet: sheet.slug, act: 'reverse' });
    else if (act === 'change') sheets.do({ sheet: sheet.slug, act: 'change', row: Number(row), cells: typed });
    else sheets.do({ sheet: sheet.slug, act: 'add', cells: typed });
    if (request.is('application/json')) response.status(204).end();
    else response.redirect(303, `/sheets/${sheet.slug}`);
  });
  return router;
}

function quoted(cell: string): string {
  return /[",\r\n]/.test(cell) ? `"${cell.replace(/"/g, '""')}"` : cell;
}

function escaped(text: string): string {
  return text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/"/g, '&quot;');
}

function page(sheet: SheetMaterial, rows: readonly string[][]): string {
  const cells = (row: readonly string[]) =>
    sheet.header
      .map((name, i) => `<td><input name="cells" aria-label="${escaped(name)}" value="${escaped(row[i] ?? '')}"></td>`)
      .join('');
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>${escaped(sheet.title)}</title>
<style>body{font:14px sans-serif;margin:2rem}input{border:0;width:100%}td,th{border:1px solid #ccc;padding:.2rem .4rem;text-align:left}</style></head><body>
<h1>${escaped(sheet.title)}</h1><p><a href="/sheets/${sheet.slug}.csv">As CSV</a></p><table><tr><th>Row</th>${sheet.header.map((name) => `<th>${escaped(name)}</th>`).join('')}<th></th></tr>
${rows.map((row, i) => `<tr><form method="post"><td>${i + 1}</td>${cells(row)}<td><input type="hidden" name="row" value="${i}"><button name="act" value="change">Change</button></td></form></tr>`).join('\n')}
<tr><form method="post"><td>new</td>${cells([])}<td><button name="act" value="add">Add</button></td></form></tr></table></body></html>`;
}
