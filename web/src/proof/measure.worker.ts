import type { ArticleWhole } from '@grivo/contract';
import {
  type Block,
  type ChangedArticle,
  doubtReader,
  type MeasuredBeside,
  type MeasuredSource,
  measuresOf,
  NOTHING_BESIDE,
  styleMeasure,
  withChanges,
} from '@grivo/core';

/** What an article was made from, once; then what became of the article each time it changes, from the one sent before. */
export type ToMeasure =
  | { kind: 'sources'; sources: readonly MeasuredSource[]; beside: MeasuredBeside; language: string }
  | { kind: 'article'; n: number; changed: ChangedArticle; house: ArticleWhole['house'] };
export type Measured = { n: number } & ReturnType<typeof measuresOf>;

let sources: readonly MeasuredSource[] = [];
let beside = NOTHING_BESIDE;
let doubts: ReturnType<typeof doubtReader> | null = null;
let before: readonly Block[] = [];

self.onmessage = ({ data }: MessageEvent<ToMeasure>) => {
  if (data.kind === 'sources') {
    sources = data.sources;
    beside = data.beside;
    doubts = doubtReader(data.sources, data.language);
    return;
  }
  const document = withChanges(before, data.changed);
  before = document.body;
  const found = measuresOf(document, sources, doubts?.(document.body) ?? [], beside);
  const { house } = data;
  const measures = house ? [...found.measures, styleMeasure(document, house)] : found.measures;
  self.postMessage({ n: data.n, ...found, measures } satisfies Measured);
};
