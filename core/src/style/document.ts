import { z } from 'zod';
import { CardDocument, MOST_CARDS } from '../card/document.ts';
import { SPELLINGS } from '../keyword/spelling.ts';
import { PERSONS } from '../procedure/kinds/write.ts';
import { FIGURE_NAMES } from './figures.ts';

/** Where a text of the house stands in every article. */
export const PLACES = [
  'above the opening',
  'below the opening',
  'before the first quotation',
  'after a section',
  'at the end',
] as const;
export type StandingPlace = (typeof PLACES)[number];

/** How readers are spoken to, in languages that have two ways: du or Sie, tu or vous. */
export const FORMS_OF_ADDRESS = ['as it fits', 'familiar', 'formal'] as const;
export type FormOfAddress = (typeof FORMS_OF_ADDRESS)[number];

const words = z.string().trim().min(1).max(80);

export const StandingWords = z.strictObject({
  at: z.enum(PLACES),
  /** Which section it stands after; of one that has fewer, its last. */
  section: z.int().min(1).max(50).default(1),
  /** One of them is chosen for each article; lists in braces and fields inside. */
  texts: z.array(z.string().trim().min(1).max(2_000)).min(1).max(50),
});
export type StandingWords = z.infer<typeof StandingWords>;

/** What is said instead of what. */
export const HouseWord = z.strictObject({ use: words, not: z.array(words).min(1).max(20) });
export type HouseWord = z.infer<typeof HouseWord>;

/** How a house sounds and what it allows. What is empty is left to the steps. */
export const HouseStyleDocument = z.strictObject({
  grivo: z.literal(1),
  /** What the writer is told, in sentences. */
  voice: z.string().trim().max(4_000).default(''),
  person: z.enum(PERSONS).nullable().default(null),
  address: z.enum(FORMS_OF_ADDRESS).default('as it fits'),
  /** Of English; null leaves it as it comes. */
  spelling: z.enum(SPELLINGS).nullable().default(null),
  /** Between what its figures lie. */
  ranges: z
    .partialRecord(
      z.enum(FIGURE_NAMES),
      z.strictObject({ from: z.number().min(0).max(1_000), to: z.number().min(0).max(1_000) }),
    )
    .default({}),
  /** What is true of us: given to the writer as a source, so that it may be said. */
  facts: z.array(z.string().trim().min(1).max(500)).max(100).default([]),
  words: z.array(HouseWord).max(300).default([]),
  /** Words that never stand in an article. */
  never: z.array(words).max(300).default([]),
  standing: z.array(StandingWords).max(20).default([]),
  /** What readers are asked to do at the end. */
  call: z
    .strictObject({
      before: z.string().trim().max(500),
      button: z.string().trim().min(1).max(80),
      address: z.string().trim().min(1).max(1_000),
    })
    .nullable()
    .default(null),
  /** What readers are told of how it was made, or who pays. */
  disclosure: z.string().trim().max(500).default(''),
  /** How pictures are drawn. */
  pictures: z.string().trim().max(300).default(''),
  /** Pictures drawn from templates, each under a name of its own. */
  cards: z
    .array(CardDocument)
    .max(MOST_CARDS)
    .refine((cards) => new Set(cards.map(({ name }) => name)).size === cards.length, 'two cards have one name')
    .default([]),
  links: z
    .strictObject({
      /** Own links an article has at most; null leaves it to the step. */
      most: z.int().min(0).max(50).nullable(),
      aParagraph: z.int().min(1).max(5),
      inOpening: z.boolean(),
    })
    .default({ most: null, aParagraph: 1, inOpening: true }),
  /** Texts under names, said in texts and instructions as {{ house.name }}. */
  values: z
    .array(
      z.strictObject({
        name: z.string().regex(/^[a-z][A-Za-z0-9]{0,39}$/, 'a name of letters and figures, as shopName'),
        text: z.string().trim().min(1).max(2_000),
      }),
    )
    .max(50)
    .default([]),
});
export type HouseStyleDocument = z.infer<typeof HouseStyleDocument>;

/** A house style that asks for nothing. */
export const PLAIN_STYLE: HouseStyleDocument = HouseStyleDocument.parse({ grivo: 1 });
