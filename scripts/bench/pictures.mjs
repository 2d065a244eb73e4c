// What several widths of a photograph cost, and what a card costs: a title set into it, drawn and made a picture, as for one article after the other.

import { newCard } from '@grivo/core';
import sharp from 'sharp';
import { keptPairs } from '../../core/src/honesty/pairs/pairs.ts';
import { drawingAsPicture } from '../../server/src/formats/pictures/drawing.ts';
import { inWidths, WIDTHS } from '../../server/src/formats/pictures/widths.ts';
import { drawnFor } from '../../server/src/nouns/cards/draw.ts';
import { median } from './ground.mjs';

const TITLES = 120;
/** Faces are opened once; what follows is what each article costs. */
const WARM = 10;

/** A photograph of twelve million pixels with something to see in every corner, as a camera gives it. */
async function photograph() {
  const [width, height] = [4_000, 3_000];
  const noise = { type: 'gaussian', mean: 128, sigma: 40 };
  const coarse = await sharp({ create: { width: 500, height: 375, channels: 3, background: '#345', noise } })
    .png()
    .toBuffer();
  return sharp(coarse).resize(width, height, { kernel: 'cubic' }).jpeg({ quality: 90 }).toBuffer();
}

/** Four widths of it, over one plain resize of the same, in turn. */
async function sizes() {
  const bytes = await photograph();
  const took = { sizes: [], resize: [] };
  for (let i = 0; i < 9; i++) {
    let from = performance.now();
    if ((await inWidths(bytes, WIDTHS)).length !== 4) throw new Error('not four widths');
    took.sizes.push(performance.now() - from);
    from = performance.now();
    await sharp(bytes).resize({ width: 1_600 }).jpeg().toBuffer();
    took.resize.push(performance.now() - from);
  }
  return median(took.sizes.slice(1)) / median(took.resize.slice(1));
}

export async function pictures() {
  const titles = keptPairs()
    .kept.map(([, , , , sentence]) => sentence.slice(0, 140).trim())
    .slice(0, TITLES);
  const card = newCard('Bench');
  const took = [];
  let drawn = 0;
  for (const title of titles) {
    const from = performance.now();
    const subject = { title, keyPhrase: '', language: 'en', blog: 'Crockhaven Journal', house: {}, now: 0 };
    const { svg, problems } = drawnFor(card, subject, new Map());
    if (!problems.some(({ stops }) => stops)) drawn += (await drawingAsPicture(svg)).body.length > 0 ? 1 : 0;
    took.push(performance.now() - from);
  }
  return {
    'pictures.sizesVsResize': await sizes(),
    'pictures.cardMs': median(took.slice(WARM)),
    'pictures.cardsDrawn': drawn / titles.length,
  };
}
