import type { CardDocument } from '@grivo/core';
import { drawingAsPicture } from '../../formats/pictures/drawing.ts';
import type { Database } from '../../ground/store/database.ts';
import { type Kept, keepMade } from '../pictures/keep.ts';
import { type CardSubject, cardAlternative, drawnFor, picturesOfCard } from './draw.ts';

/** Draws a card for a subject into the library; what cannot be drawn is said, with what would mend it. */
export async function keepCard(
  db: Database,
  card: CardDocument,
  subject: CardSubject,
): Promise<(Kept & { ok: true; alternative: string }) | { ok: false; sentence: string; mend: string }> {
  const pictures = await picturesOfCard(db, card, Math.max(card.width, card.height));
  const drawn = drawnFor(card, subject, pictures);
  const stops = drawn.problems.find((problem) => problem.stops);
  if (stops) return { ok: false, sentence: stops.sentence, mend: stops.mend };
  const alternative = cardAlternative(drawn.says, subject.language);
  const about = { kind: 'card' as const, words: alternative, credit: '', origin: card.name, cost: 0 };
  return { ...(await keepMade(db, await drawingAsPicture(drawn.svg), about)), alternative };
}
