import { CardDocument } from '@grivo/core';
import { z } from 'zod';

/** Draws a card with titles of ours before it is kept. */
export const DrawCard = z.strictObject({
  card: CardDocument,
  /** Which titles are taken; another number takes others. */
  draw: z.int().min(0).max(10_000).default(0),
});

export const CardProblem = z.object({
  /** Which of its texts, from 0; -1 for the card. */
  text: z.int(),
  sentence: z.string(),
  mend: z.string(),
  /** Whether the card cannot be drawn so. */
  stops: z.boolean(),
});

/** A card with one title. */
export const CardSample = z.object({
  title: z.string(),
  /** The blog of its article, and its language: both may stand on the card. */
  blog: z.string(),
  language: z.string(),
  /** The drawing as SVG. */
  svg: z.string(),
  /** How each text stands there: the size of its letters and its lines. */
  texts: z.array(z.object({ size: z.int(), lines: z.array(z.string()) })),
  problems: z.array(CardProblem),
});
export type CardSample = z.infer<typeof CardSample>;

export const CardSamples = z.object({
  /** Whether the titles are made up, as there is no article yet. */
  madeUp: z.boolean(),
  /** Short to long. */
  samples: z.array(CardSample),
});
export type CardSamples = z.infer<typeof CardSamples>;

/** The cards an article may have drawn: those of its house style, by name. */
export const ArticleCards = z.object({ cards: z.array(z.string()) });
export const DrawArticleCard = z.strictObject({
  /** Empty for the first of the house style, or a plain one where it has none. */
  card: z.string().trim().max(60).default(''),
});
