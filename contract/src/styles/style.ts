import { FIGURE_NAMES, HouseStyleDocument, MOST_RULES, ReplacementRule } from '@grivo/core';
import { z } from 'zod';
import { Address, Desk, Id, Language, Name } from '../id.ts';
import { Carried } from '../labels/label.ts';

const figures = z.record(z.enum(FIGURE_NAMES), z.number());
const shares = z.object({
  persons: z.object({ I: z.number(), we: z.number(), you: z.number() }),
  openings: z.object({
    'an order': z.number(),
    'a figure': z.number(),
    'a question': z.number(),
    other: z.number(),
  }),
});

/** A text a house style was learnt from. */
export const StyleText = z.object({
  id: Id,
  name: z.string(),
  /** Where it was read; empty where it was pasted. */
  address: z.string(),
  language: z.string(),
  words: z.int(),
  sentences: z.int(),
  figures,
  addedDesk: Desk,
});
export type StyleText = z.infer<typeof StyleText>;

/** What the texts of a style have in common. */
export const StyleLearnt = z.object({
  words: z.int(),
  figures: z.array(
    z.object({
      name: z.enum(FIGURE_NAMES),
      mean: z.number(),
      each: z.array(z.number()),
      range: z.object({ from: z.number(), to: z.number() }),
    }),
  ),
  ...shares.shape,
  favours: z.array(z.string()),
  /** A description made of the figures. */
  describes: z.string(),
});
export type StyleLearnt = z.infer<typeof StyleLearnt>;

/** Paragraphs a writer wrote in a style, to hear it. */
export const StyleSample = z.object({
  heading: z.string(),
  paragraphs: z.array(z.string()),
  /** The version it was written in. */
  version: z.int(),
  atDesk: Desk,
  micros: z.int(),
  words: z.int(),
  /** Words that were put as the house says them. */
  reworded: z.array(z.object({ from: z.string(), to: z.string() })),
  /** Figures of it that lie outside of their ranges. */
  outside: z.array(z.enum(FIGURE_NAMES)),
});
export type StyleSample = z.infer<typeof StyleSample>;

export const StyleUser = z.object({ noun: z.enum(['blog', 'pipeline']), id: Id, name: z.string(), says: z.string() });

export const HouseStyle = z.object({
  id: Id,
  name: z.string(),
  note: z.string(),
  version: z.int(),
  rev: z.int(),
  archived: z.boolean(),
  labels: Carried,
  document: HouseStyleDocument,
  /** Blogs that keep to it, and pipelines that name it. */
  usedBy: z.array(StyleUser),
  texts: z.int(),
});
export type HouseStyle = z.infer<typeof HouseStyle>;
export const HouseStyles = z.object({ styles: z.array(HouseStyle) });

export const HouseStyleWhole = HouseStyle.extend({
  samples: z.array(StyleText),
  /** Null without texts. */
  learnt: StyleLearnt.nullable(),
  sample: StyleSample.nullable(),
});
export type HouseStyleWhole = z.infer<typeof HouseStyleWhole>;

/** A style that asks for nothing yet, or a copy of another. */
export const NewHouseStyle = z.strictObject({ name: Name, from: Id.optional() });
export const HouseStyleChange = z.strictObject({ document: HouseStyleDocument });

export const StyleVersion = z.object({
  n: z.int(),
  atDesk: Desk,
  by: z.string().nullable(),
  document: HouseStyleDocument,
});
export type StyleVersion = z.infer<typeof StyleVersion>;
export const StyleVersions = z.object({ versions: z.array(StyleVersion) });

/** A text to learn from: pasted, read at an address, or an article of ours. */
export const NewStyleText = z.union([
  z.strictObject({ name: Name, text: z.string().trim().min(1, 'a text').max(500_000), language: Language.optional() }),
  z.strictObject({ address: Address }),
  z.strictObject({ article: Id }),
]);
export type NewStyleText = z.infer<typeof NewStyleText>;

/** Rules of replacement to be tried on an article, or on a text somebody pasted. */
export const ReplacementTrial = z
  .strictObject({
    rules: z.array(ReplacementRule).max(MOST_RULES),
    article: Id.optional(),
    text: z.string().max(200_000).optional(),
  })
  .refine(({ article, text }) => (article === undefined) !== (text === undefined), 'an article or a text');
export const ReplacementsTried = z.object({
  /** Of the article. */
  title: z.string(),
  problems: z.array(z.object({ rule: z.int(), problem: z.string() })),
  /** The first of them. */
  places: z.array(
    z.object({ block: z.string(), from: z.string(), to: z.string(), before: z.string(), after: z.string() }),
  ),
  found: z.int(),
});
export type ReplacementsTried = z.infer<typeof ReplacementsTried>;

/** An article beside a style, point by point. */
export const StyleComparison = z.object({
  article: z.object({ id: Id, title: z.string() }),
  figures: z.array(
    z.object({
      name: z.enum(FIGURE_NAMES),
      value: z.number(),
      range: z.object({ from: z.number(), to: z.number() }).nullable(),
      within: z.boolean().nullable(),
      mend: z.string().nullable(),
      place: z.string().nullable(),
    }),
  ),
  unwanted: z.array(z.object({ block: z.string().nullable(), words: z.string(), instead: z.string().nullable() })),
  person: z.string().nullable(),
  /** How far it is from the hand of the texts, beside the nearest and the farthest of them; null with fewer than three. */
  hand: z.object({ distance: z.number(), nearest: z.number(), farthest: z.number(), alike: z.boolean() }).nullable(),
});
export type StyleComparison = z.infer<typeof StyleComparison>;
