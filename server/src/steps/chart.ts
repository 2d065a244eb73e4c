import {
  type ArticleDocument,
  BELOW_TEXT,
  type Block,
  blockText,
  chartOf,
  comparedSeries,
  comparedTable,
  type Passage,
  restingOn,
  type Series,
  type StepOf,
  seriesIn,
  seriesInRows,
  tableOf,
  textDigest,
} from '@grivo/core';
import type { Performer, StepContext } from '../engine/performer.ts';
import { field, GatheredItems, missing, PassagesField } from '../nouns/articles/fields.ts';
import { passagesById } from '../nouns/materials/repository.ts';
import type { Tools } from '../ports/tools.ts';
import { ownArticle } from './ownArticle.ts';
import { placeSharing } from './sharing.ts';

/** A series and the passage it was found in; null for one that was given. */
interface Found {
  series: Series;
  passage: Passage | null;
}

/** Draws charts and tables of the figures in the source, or of those in a field, each where the article speaks of them. */
export function performChart(tools: Tools): Performer<StepOf<'chart'>> {
  return async (step, context) => {
    const article = await ownArticle(tools, context);
    if (!article) return missing('article');
    const { document } = article;
    const own = `${step.id}c`;
    // What an earlier run of this step put there gives way.
    const before = document.body.filter(({ id }) => !id.startsWith(own));
    if (step.from === 'items') {
      const items = GatheredItems.safeParse(context.fields['items']).data;
      if (!items) return missing('items');
      const blocks = besideEachOther(items, step, own, document);
      const at = before.findIndex(({ type }) => type === 'heading');
      const body = at > 0 ? [...before.slice(0, at), ...blocks, ...before.slice(at)] : endedWith(before, blocks);
      const { article: changed, writes } = await article.change({ ...document, body });
      return { kind: 'done', fields: { article: changed, charts: blocks.length }, writes };
    }
    const found = step.from === 'field' ? given(context, step.field) : await inSource(tools, context, document);
    if (found === null) return missing(step.field);
    let body = before;
    const shown = found.slice(0, step.most);
    for (const [n, one] of shown.entries())
      body = placed(body, blocksOf(one, step, `${own}${n + 1}`, document), one, document);
    const { article: changed, writes } = await article.change({ ...document, body });
    return { kind: 'done', fields: { article: changed, charts: shown.length }, writes };
  };
}

/** Its items beside each other: a table of all columns, and a chart of each that holds figures. */
function besideEachOther(
  items: GatheredItems,
  step: StepOf<'chart'>,
  own: string,
  { language }: ArticleDocument,
): Block[] {
  const charts = step.as === 'table' ? [] : comparedSeries(items, step.columns).slice(0, step.most);
  const table = step.as === 'chart' ? null : comparedTable(items, step.columns, `${own}t`, language);
  return [...charts.map((series, n) => chartOf(series, `${own}${n + 1}`, language)), ...(table ? [table] : [])];
}

/** Lines of a field that are looked at. */
const MOST_ROWS = 200;

/** The series in the lines of a field; null where there is no such field. */
function given({ fields }: StepContext, name: string): Found[] | null {
  const value = fields[name];
  if (typeof value !== 'string') return null;
  const rows = value
    .split('\n')
    .map((line) => line.split(/[|;\t]/).map((cell) => cell.trim()))
    .filter((cells) => cells.some((cell) => cell !== ''))
    .map((cells) => cells.join(' | '));
  return seriesInRows(rows.slice(0, MOST_ROWS)).map((series) => ({ series, passage: null }));
}

/** The series in the passages of the brief, those first that the article rests on, in the order it does. */
async function inSource({ ground }: Tools, { fields }: StepContext, { body }: ArticleDocument): Promise<Found[]> {
  const ids = field(fields, 'passages', PassagesField);
  if (!ids) return [];
  const passages = await passagesById(ground.db, ids);
  const rested = body.flatMap(({ evidence }) => evidence?.map(({ passage }) => passage) ?? []);
  const place = ({ passage }: Found) => {
    const at = rested.indexOf(passage?.id ?? '');
    return at < 0 ? rested.length : at;
  };
  const all = [
    ...passages.flatMap((passage) => seriesIn(passage.text, passage.language).map((series) => ({ series, passage }))),
    ...tablesIn(passages),
  ];
  const once = new Map(all.map((one) => [JSON.stringify([one.series.labels, one.series.values]), one]));
  return [...once.values()].sort((a, b) => place(a) - place(b));
}

/** Rows of a table are passages that follow each other, cells side by side. */
function tablesIn(passages: readonly Passage[]): Found[] {
  const rows = passages.filter(({ text }) => text.includes(' | '));
  const tables: Passage[][] = [];
  for (const row of rows) {
    const last = tables.at(-1)?.at(-1);
    const follows =
      last?.locator.address === row.locator.address && row.locator.paragraph === last.locator.paragraph + 1;
    if (follows) tables.at(-1)!.push(row);
    else tables.push([row]);
  }
  return tables.flatMap((table) =>
    seriesInRows(table.map(({ text }) => text)).map((series) => ({ series, passage: table[0]! })),
  );
}

function blocksOf(
  { series, passage }: Found,
  step: StepOf<'chart'>,
  id: string,
  { language }: ArticleDocument,
): Block[] {
  const rests = (block: Block): Block =>
    passage ? { ...block, evidence: [{ passage: passage.id, digest: textDigest(blockText(block)) }] } : block;
  return [
    ...(step.as === 'table' ? [] : [rests(chartOf(series, id, language))]),
    ...(step.as === 'chart' ? [] : [rests(tableOf(series, `${id}t`, language))]),
  ];
}

/** Words a paragraph must share with what is shown, to have it after it. */
const LEAST_SHARED = 2;
/** After the paragraph that rests on its passage, else after the one that shares most words with it, else at the end of the text. */
function placed(
  body: Block[],
  blocks: readonly Block[],
  { series, passage }: Found,
  { language }: ArticleDocument,
): Block[] {
  const about = passage?.text ?? [...series.labels, series.unit].join(' ');
  const at =
    (passage && restingOn(body, passage.id)) ??
    placeSharing(body, about, language, { least: LEAST_SHARED }) ??
    endOf(body);
  return [...body.slice(0, at), ...blocks, ...body.slice(at)];
}

const endedWith = (body: readonly Block[], blocks: readonly Block[]): Block[] => [
  ...body.slice(0, endOf(body)),
  ...blocks,
  ...body.slice(endOf(body)),
];

function endOf(body: readonly Block[]): number {
  const last = body.findLastIndex(({ type }) => !BELOW_TEXT.includes(type));
  return last + 1;
}
