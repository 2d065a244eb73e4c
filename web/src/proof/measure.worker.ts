import type { ArticleWhole } from '@grivo/contract';
import {
  type ArticleDocument,
  doubtReader,
  type MeasuredBeside,
  type MeasuredSource,
  measuresOf,
  NOTHING_BESIDE,
  styleMeasure,
} from '@grivo/core';

/** What an article was made from, once; then the article each time it changes. */
export type ToMeasure =
  | { kind: 'sources'; sources: readonly MeasuredSource[]; beside: MeasuredBeside; language: string }
  | { kind: 'article'; n: number; document: ArticleDocument; house: ArticleWhole['house'] };
export type Measured = { n: number } & ReturnType<typeof measuresOf>;

let sources: readonly MeasuredSource[] = [];
let beside = NOTHING_BESIDE;
let doubts: ReturnType<typeof doubtReader> | null = null;

self.onmessage = ({ data }: MessageEvent<ToMeasure>) => {
  if (data.kind === 'sources') {
    sources = data.sources;
    beside = data.beside;
    doubts = doubtReader(data.sources, data.language);
    return;
  }
  const found = measuresOf(data.document, sources, doubts?.(data.document.body) ?? [], beside);
  const { house } = data;
  const measures = house ? [...found.measures, styleMeasure(data.document, house)] : found.measures;
  self.postMessage({ n: data.n, ...found, measures } satisfies Measured);
};
