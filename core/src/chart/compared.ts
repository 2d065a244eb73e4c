import type { Table } from '../article/block.ts';
import { plainInline } from '../article/inline.ts';
import { type Series, seriesInRows } from '../series/series.ts';

/** One of several things that are compared: what it is called, and what is known of it. */
export interface Compared {
  subject: string;
  [field: string]: unknown;
}

/** What may be said of every product of a partner's list. */
export const PRODUCT_COLUMNS = ['price', 'category', 'popularity', 'description'] as const;

/** What is known of one: a column of its own, or one of the product it is. */
function knownOf(item: Compared, field: string): unknown {
  const product = item['product'];
  const within = product !== null && typeof product === 'object' ? (product as Record<string, unknown>)[field] : null;
  return item[field] ?? within;
}

/** Stands where nothing is known. */
const NOTHING = '–';

/** What a field is called in a table: `drainsWell` is 'Drains well'. */
export function columnName(field: string): string {
  const words = field
    .replace(/(?<=[\p{Ll}\d])(?=\p{Lu})/gu, ' ')
    .replaceAll('_', ' ')
    .toLowerCase();
  return words.charAt(0).toUpperCase() + words.slice(1);
}

/** What is known, as a cell: figures as the language writes them; null where it is nothing that can be read. */
function cellOf(value: unknown, language: string): string | null {
  if (typeof value === 'number' && Number.isFinite(value))
    return new Intl.NumberFormat(language, { maximumFractionDigits: 6 }).format(value);
  if (typeof value === 'boolean') return value ? '✓' : NOTHING;
  if (Array.isArray(value)) return value.flatMap((one) => cellOf(one, language) ?? []).join(', ') || null;
  const text = typeof value === 'string' ? value.replace(/\s+/g, ' ').trim() : '';
  return text === '' ? null : text;
}

/**
 * Several things side by side, a line each. A column nobody fills is left out.
 * @returns null where there are fewer than two, or nothing is known of any
 */
export function comparedTable(
  items: readonly Compared[],
  columns: readonly string[],
  id: string,
  language: string,
): Table | null {
  if (items.length < 2) return null;
  const filled = columns
    .map((field) => ({ name: columnName(field), cells: items.map((item) => cellOf(knownOf(item, field), language)) }))
    .filter(({ cells }) => cells.some((cell) => cell !== null));
  if (filled.length === 0) return null;
  return {
    type: 'table',
    id,
    head: [[], ...filled.map(({ name }) => plainInline(name))],
    rows: items.map(({ subject }, i) => [
      plainInline(subject),
      ...filled.map(({ cells }) => plainInline(cells[i] ?? NOTHING)),
    ]),
  };
}

/** The columns whose every cell holds a figure of the same unit, as they can be drawn. */
export function comparedSeries(items: readonly Compared[], columns: readonly string[]): Series[] {
  return columns.flatMap((field) => {
    const cells = items.map((item) =>
      [item.subject, String(knownOf(item, field) ?? '')].map((cell) => cell.replaceAll('|', ' ')),
    );
    return seriesInRows([' | figure', ...cells.map((row) => row.join(' | '))]).map((series) => ({
      ...series,
      what: columnName(field),
    }));
  });
}
