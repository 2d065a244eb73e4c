import { PLACINGS, type Placing } from '@grivo/core';
import Papa from 'papaparse';
import { csvRows, TableRefused } from '../../formats/tables/csv.ts';
import type { KeptRule, NewRule } from './rules.ts';

/** Columns of a file of rules. */
const COLUMNS = ['words', 'address', 'at most', 'where', 'after', 'forms', 'case', 'marked'] as const;
type Column = (typeof COLUMNS)[number];

/** Rules as CSV (RFC 4180), to be changed in a sheet and read again. */
export function rulesAsCsv(rules: readonly KeptRule[]): string {
  return Papa.unparse(
    {
      fields: [...COLUMNS],
      data: rules.map((rule) => [
        rule.words,
        rule.address,
        rule.most,
        rule.placing,
        rule.after,
        rule.forms ? 'yes' : 'no',
        rule.anyCase ? 'any' : 'exact',
        rule.sponsored ? 'sponsored' : '',
      ]),
    },
    // What a sheet would take for a formula is text.
    { newline: '\r\n', escapeFormulae: true },
  );
}

export interface RulesInFile {
  rules: NewRule[];
  unread: { line: number; why: string }[];
}

const MOST_RULES = 20_000;
const MOST_TOLD = 50;

const separatorOf = (first: string): string =>
  [',', ';', '\t'].reduce((best, one) => (first.split(one).length > first.split(best).length ? one : best));

/** Rules of a text with separated cells whose first row names its columns; words and address are needed, the rest is as a new rule has it. */
export async function rulesInCsv(text: string, blog: string | null): Promise<RulesInFile> {
  const out: RulesInFile = { rules: [], unread: [] };
  const first = text.slice(0, 2_000).split(/\r?\n/, 1)[0] ?? '';
  const part = async function* () {
    yield text.replace(/^\ufeff/, '');
  };
  let columns: Map<Column, number> | null = null;
  let line = 0;
  const tell = (why: string) => {
    if (out.unread.length < MOST_TOLD) out.unread.push({ line, why });
  };
  try {
    for await (const rows of csvRows(part(), separatorOf(first), []))
      for (const row of rows) {
        line++;
        const cells = Array.from({ length: row.length }, (_, i) => (row.at(i) ?? '').trim());
        if (cells.every((cell) => cell === '')) continue;
        if (!columns) {
          columns = columnsOf(cells);
          if (!columns.has('words') || !columns.has('address')) {
            tell('the first row names no columns ‘words’ and ‘address’');
            return out;
          }
        } else {
          if (out.rules.length >= MOST_RULES) {
            tell(`only the first ${MOST_RULES.toLocaleString('en-GB')} rules are read`);
            return out;
          }
          const rule = ruleOf((name) => cells[columns!.get(name) ?? -1] ?? '', blog);
          if (typeof rule === 'string') tell(rule);
          else out.rules.push(rule);
        }
      }
  } catch (error) {
    if (!(error instanceof TableRefused)) throw error;
    tell(error.problem);
  }
  return out;
}

function columnsOf(cells: readonly string[]): Map<Column, number> {
  const out = new Map<Column, number>();
  for (const [i, cell] of cells.entries()) {
    const name = COLUMNS.find((one) => one === cell.toLowerCase());
    if (name && !out.has(name)) out.set(name, i);
  }
  return out;
}

/** @returns a sentence's part that says what is wrong with it, where something is */
function ruleOf(cell: (name: Column) => string, blog: string | null): NewRule | string {
  const words = cell('words').replace(/^'(?=[=+\-@])/, '');
  const address = cell('address');
  if (words === '') return 'it has no words';
  if (words.length > 120) return 'its words are longer than 120 letters';
  if (!/^https?:\/\//i.test(address) || !URL.canParse(address) || address.length > 1_000)
    return `‘${address.slice(0, 80)}’ is no web address; it begins with https://`;
  const most = numberIn(cell('at most'), 1, 1, 20);
  if (most === null) return `‘${cell('at most').slice(0, 20)}’ is no number from 1 to 20`;
  const after = numberIn(cell('after'), 0, 0, 10_000);
  if (after === null) return `‘${cell('after').slice(0, 20)}’ is no number of words`;
  const where = cell('where').toLowerCase() || 'first';
  if (!PLACINGS.includes(where as Placing)) return `‘${where.slice(0, 20)}’ is neither ‘first’ nor ‘spread’`;
  return {
    blog,
    words,
    address,
    most,
    placing: where as Placing,
    after,
    forms: !/^(?:no|nein|0|false)$/i.test(cell('forms')),
    anyCase: cell('case').toLowerCase() !== 'exact',
    sponsored: cell('marked').toLowerCase() === 'sponsored',
  };
}

function numberIn(text: string, unsaid: number, least: number, most: number): number | null {
  if (text === '') return unsaid;
  const n = Number(text);
  return Number.isInteger(n) && n >= least && n <= most ? n : null;
}
