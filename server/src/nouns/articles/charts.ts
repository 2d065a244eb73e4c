import { type Block, type Chart, chartPlan, drawChart } from '@grivo/core';
import { drawingAsPng } from '../../formats/pictures/drawing.ts';
import { faceFor } from '../../formats/type/setting.ts';
import { storeSmall } from '../../ground/files/repository.ts';
import type { Sql } from '../../ground/store/database.ts';

export interface ChartPicture {
  file: string;
  /** As wide and high as it is shown; the file has twice as many dots, for dense screens. */
  width: number;
  height: number;
}

const DENSE = 2;
/** Pixels a chart may be high; of more figures than that the table stands alone. */
const HIGHEST = 3_000;
const MOST_REMEMBERED = 500;
const remembered = new Map<string, ChartPicture>();

/**
 * The charts of an article as pictures, drawn and stored when they are first asked for; the same figures are the same file.
 * @returns by the id of the block
 */
export async function chartPictures(
  sql: Sql,
  { body, language }: { body: readonly Block[]; language?: string },
): Promise<Map<string, ChartPicture>> {
  const out = new Map<string, ChartPicture>();
  for (const block of body) {
    const picture = block.type === 'chart' ? await pictureOf(sql, block, language ?? 'en') : null;
    if (picture) out.set(block.id, picture);
  }
  return out;
}

async function pictureOf(sql: Sql, { form, labels, series }: Chart, language: string): Promise<ChartPicture | null> {
  const key = JSON.stringify([form, labels, series, language]);
  const known = remembered.get(key);
  if (known) return known;
  if (labels.length === 0 || series.length === 0) return null;
  const plan = chartPlan({ form, labels, series }, language);
  if (plan.height > HIGHEST) return null;
  const svg = drawChart(plan, faceFor('plain', false));
  const [, wide, high] = /width="(\d+)" height="([\d.]+)"/.exec(svg)!;
  const [width, height] = [Number(wide), Math.round(Number(high))];
  const body = drawingAsPng(svg, width * DENSE);
  const file = await storeSmall(sql, body, { mime: 'image/png', width: width * DENSE, height: height * DENSE });
  if (remembered.size >= MOST_REMEMBERED) remembered.delete(remembered.keys().next().value!);
  remembered.set(key, { file, width, height });
  return { file, width, height };
}

/** The stored pictures of a block: its own, or the still of its video. */
export const pictureFiles = (block: Block): string[] =>
  block.type === 'figure' ? [block.file] : block.type === 'video' && block.picture ? [block.picture.file] : [];

/** Every stored file an article shows: its pictures, the stills of its videos and its charts. */
export async function filesShown(sql: Sql, document: { body: readonly Block[]; language?: string }): Promise<string[]> {
  const charts = await chartPictures(sql, document);
  return [...new Set([...document.body.flatMap(pictureFiles), ...[...charts.values()].map(({ file }) => file)])];
}
