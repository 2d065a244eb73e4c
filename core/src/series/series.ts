import { VERBS } from '../honesty/lexicon.ts';
import { type Token, tokensOf } from '../honesty/token.ts';
import { type Clause, clausesOf } from './clauses.ts';
import { type Event, eventsIn, numberIn, type Value } from './events.ts';
import { wordsFor } from './words.ts';

/** Figures of one sort that belong together: what they are of, and what each stands beside. */
export interface Series {
  labels: string[];
  values: number[];
  /** As it is written; empty where none is. */
  unit: string;
  /** What its figures are of, where a table says it. */
  what?: string;
  /** Whether its labels have an order of their own: years, temperatures, days. */
  ordered: boolean;
}

interface Pair {
  label: string;
  /** Only pairs of one sort make a series. */
  sort: string;
  value: Value;
}

/** Fewer points tell nothing that a sentence does not. */
const LEAST_POINTS = 3;
const LONGEST_TEXT = 20_000;

/** The series in a passage: figures of one sort, at least three, each with a moment, a measure or a name of its own. */
export function seriesIn(text: string, language: string): Series[] {
  const clauses = clausesOf(tokensOf(text.slice(0, LONGEST_TEXT), language), language);
  const read = clauses.map((clause) => ({ clause, events: eventsIn(clause, language) }));
  const found = runsOf(read.map(({ clause, events }) => (events ? pairsOf(clause, events, language) : [])));
  if (found.length > 0) return found;
  return namedSeries(read, language);
}

/** Pairs of one sort in a row, over clauses that follow each other. */
function runsOf(clauses: readonly (readonly Pair[])[]): Series[] {
  const out: Series[] = [];
  let run: Pair[] = [];
  const close = () => {
    const series = seriesOf(run, true);
    if (series) out.push(series);
    run = [];
  };
  for (const pairs of clauses) {
    if (pairs.length === 0) close();
    for (const pair of pairs) {
      if (run.length > 0 && !fits(run, pair)) close();
      run.push(pair);
    }
  }
  close();
  return out;
}

/** Whether a pair goes on with the ones before: of the same sort, its value in the same unit, or without one. */
function fits(run: readonly Pair[], { sort, value }: Pair): boolean {
  const unit = run.find((pair) => pair.value.sort !== '')?.value.sort ?? '';
  return run[0]!.sort === sort && (value.sort === '' || unit === '' || value.sort === unit);
}

function seriesOf(run: readonly Pair[], ordered: boolean): Series | null {
  const labels = run.map(({ label }) => label);
  if (run.length < LEAST_POINTS || new Set(labels.map((label) => label.toLowerCase())).size < labels.length)
    return null;
  const unit = run.find(({ value }) => value.unit !== '')?.value.unit ?? '';
  return { labels, values: run.map(({ value }) => value.value), unit, ordered };
}

/** Labels and values of a clause that belong together: a moment and a figure, or two figures of which one says at what. */
function pairsOf(clause: Clause, events: readonly Event[], language: string): Pair[] {
  const labels = events.filter((event) => event.kind === 'label');
  const values = events.filter((event) => event.kind === 'value');
  if (labels.length > 0) {
    if (labels.length !== values.length) return [];
    const first = events[0]!.kind;
    // Label and value in turn, in one order.
    if (events.some(({ kind }, n) => (kind === first) !== (n % 2 === 0))) return [];
    return labels.map(({ text, sort }, n) => ({ label: text, sort, value: values[n]! }));
  }
  const [one, other] = values;
  if (values.length !== 2 || one!.sort === '' || other!.sort === '') return [];
  if (dimensionOf(one!) === dimensionOf(other!)) return [];
  const said = [one!, other!].filter((value) => isMeasuredAt(clause, value, language));
  const label = said.length === 1 ? said[0]! : one!;
  const value = label === one ? other! : one!;
  return [{ label: label.text, sort: dimensionOf(label), value }];
}

/** Grams and kilograms are both mass. */
const dimensionOf = ({ sort }: Value): string => sort.replace(/ [\d.e-]+$/, '');

const isMeasuredAt = (clause: Clause, { from }: Value, language: string): boolean =>
  wordsFor(language).measuredAt.has(clause[from - 1]?.lower ?? '');

interface ReadClause {
  clause: Clause;
  events: Event[] | null;
}

/** Figures beside the names of what they are of: 'beech 4 hours, birch 3 hours and spruce 2 hours'. */
function namedSeries(clauses: readonly ReadClause[], language: string): Series[] {
  const out: Series[] = [];
  let run: { clause: Clause; value: Value }[] = [];
  let before: Value | null = null;
  const close = () => {
    const series = named(run, before, language);
    if (series) out.push(series);
    run = [];
  };
  for (const { clause, events } of clauses) {
    const values = (events ?? []).filter((event) => event.kind === 'value');
    const value = values[0];
    const labelled = (events ?? []).some((event) => event.kind === 'label' && event.sort !== 'ordinal');
    const whole = run.length > 0 && run[0]!.value.sort !== '' && value && value.sort !== run[0]!.value.sort;
    if (!value || values.length !== 1 || labelled || clause.length > LONGEST_CLAUSE) {
      close();
      continue;
    }
    if (whole) {
      before = run.length === 1 ? run[0]!.value : null;
      if (run.length === 1) run = [];
      else close();
    }
    run.push({ clause, value });
  }
  close();
  return out;
}

const LONGEST_CLAUSE = 16;

function named(
  run: readonly { clause: Clause; value: Value }[],
  before: Value | null,
  language: string,
): Series | null {
  if (run.length < LEAST_POINTS) return null;
  const values = run.map(({ value }) => value);
  const sort = values[0]!.sort;
  if (values.some((value) => value.sort !== sort)) return null;
  const sum = values.reduce((all, { value }) => all + value, 0);
  // Bare numbers are parts of a whole that was said, or they may be anything.
  const isParts = before !== null && Math.abs(sum - before.value) < 1e-9;
  if (sort === '' && !isParts) return null;
  const words = wordsFor(language);
  if (run.every(({ clause, value }) => words.when.has(clause[value.from - 1]?.lower ?? ''))) return null;
  const first = run.map(({ clause, value }) => wordsOf(clause.slice(0, value.from), language));
  const after = run.map(({ clause, value }) => clause.slice(value.to).filter(({ kind }) => kind === 'word'));
  const labels = first.every(({ length }) => length > 0)
    ? subjectsOf(run, first, language)
    : first.slice(1).every(({ length }) => length === 0) && after.every(({ length }) => length > 0)
      ? after.map((tokens) => said(trimmed(tokens, language)))
      : null;
  if (!labels) return null;
  if (labels.filter((label) => label.split(' ').some((word) => words.sides.has(word.toLowerCase()))).length >= 2)
    return null;
  const series = seriesOf(
    labels.map((label, n) => ({ label, sort: 'name', value: values[n]! })),
    false,
  );
  return series && series.unit === '' && before ? { ...series, unit: before.unit } : series;
}

/** Words that name something. */
const wordsOf = (tokens: readonly Token[], language: string): Token[] => {
  const { empty } = wordsFor(language);
  return tokens.filter(({ kind, lower }) => kind === 'word' && !empty.has(lower));
};

const said = (tokens: readonly Token[]): string => tokens.map(({ text }) => text).join(' ');

/** Without words at either end that name nothing; all of them where nothing else is said: 'not at all'. */
function trimmed(tokens: readonly Token[], language: string): readonly Token[] {
  const { empty } = wordsFor(language);
  const names = tokens.map(({ lower }) => !empty.has(lower));
  const [from, to] = [names.indexOf(true), names.lastIndexOf(true)];
  return from < 0 ? tokens : tokens.slice(from, to + 1);
}

/**
 * What each figure is of, from the words before it. Only the first clause usually has the verb: where it has more words than
 * the others, its last one is left out.
 */
function subjectsOf(
  run: readonly { clause: Clause; value: Value }[],
  words: readonly Token[][],
  language: string,
): string[] | null {
  const others = Math.max(...words.slice(1).map(({ length }) => length));
  const verbs = VERBS[language] ?? VERBS['en']!;
  return run.map(({ clause, value }, n) => {
    const before = clause.slice(0, value.from).filter(({ kind }) => kind === 'word');
    const whole = trimmed(before, language);
    const hasVerb = before.some(({ lower }) => verbs.has(lower));
    if (n > 0 || hasVerb || words[0]!.length <= others || words[0]!.length < 2) return said(whole);
    return said(trimmed(whole.slice(0, -1), language));
  });
}

/** A row of a table as passages hold it. */
const CELLS = ' | ';

/** The series in rows of a table that follow each other: the first cell of each is its label. */
export function seriesInRows(rows: readonly string[]): Series[] {
  const cells = rows.map((row) => row.split(CELLS).map((cell) => cell.trim()));
  const width = cells[0]?.length ?? 0;
  if (width < 2 || cells.some((row) => row.length !== width)) return [];
  const hasHead = cells[0]!.slice(1).every((cell) => !/\d/.test(cell));
  const body = hasHead ? cells.slice(1) : cells;
  if (body.length < LEAST_POINTS) return [];
  const labels = body.map((row) => row[0]!);
  if (new Set(labels).size < labels.length) return [];
  const ordered = labels.every((label) => /\d/.test(label));
  return Array.from({ length: width - 1 }, (_, i) => body.map((row) => cellValue(row[i + 1]!))).flatMap(
    (column, i): Series[] => {
      if (column.some((value) => value === null)) return [];
      const units = new Set(column.map((value) => value!.unit));
      if (units.size > 1) return [];
      const what = hasHead ? { what: cells[0]![i + 1]! } : {};
      return [{ labels, values: column.map((value) => value!.value), unit: [...units][0]!, ...what, ordered }];
    },
  );
}

/** A cell that holds one figure and its unit. */
function cellValue(cell: string): { value: number; unit: string } | null {
  const found = /^(?:(?:about|ca\.|rund|€|\$|£) ?)?(-?\d[\d.,\u00a0\u202f']*)(?: ?([^\d\s].{0,15}))?$/u.exec(cell);
  if (!found) return null;
  const value = numberIn(found[1]!.replace(/[.,]$/, ''));
  return Number.isFinite(value) ? { value, unit: found[2]?.trim() ?? '' } : null;
}
