// What a card costs: a title set into it, drawn and made a picture, as for one article after the other.

import { newCard } from '@grivo/core';
import { keptPairs } from '../../core/src/honesty/pairs/pairs.ts';
import { drawingAsPng } from '../../server/src/formats/pictures/drawing.ts';
import { drawnFor } from '../../server/src/nouns/cards/draw.ts';
import { median } from './ground.mjs';

const TITLES = 120;
/** Faces are opened once; what follows is what each article costs. */
const WARM = 10;

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
    if (!problems.some(({ stops }) => stops)) drawn += drawingAsPng(svg).length > 0 ? 1 : 0;
    took.push(performance.now() - from);
  }
  return { 'pictures.cardMs': median(took.slice(WARM)), 'pictures.cardsDrawn': drawn / titles.length };
}
