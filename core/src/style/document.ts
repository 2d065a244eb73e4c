import { z } from 'zod';
import { SAYING_NAMES } from '../article/sayings.ts';
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
  /** Whether they are markup of the owner's own, which goes out as it is. */
  markup: z.boolean().default(false),
});
export type StandingWords = z.infer<typeof StandingWords>;

/** What is said instead of what. */
export const HouseWord = z.strictObject({ use: words, not: z.array(words).min(1).max(20) });
export type HouseWord = z.infer<typeof HouseWord>;

/** Where a rule is used beside the text itself. */
export const RULED = ['headings', 'links', 'quotations'] as const;
export const MOST_RULES = 1_000;
/** Each of them reads the whole article. */
export const MOST_PATTERNS = 100;

/** What is replaced wherever it stands. */
export const ReplacementRule = z.strictObject({
  find: z.string().min(1).max(300),
  /** Whether it is a regular expression, in the form of RE2. */
  pattern: z.boolean().default(false),
  /** What stands there instead; parts of a pattern as $1. Nothing leaves it out. */
  say: z.string().max(300).default(''),
  /** Whether capitals and small letters are told apart. */
  cased: z.boolean().default(false),
  where: z.array(z.enum(RULED)).default(['headings', 'links']),
});
export type ReplacementRule = z.infer<typeof ReplacementRule>;

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
  /** In their order: where two want the same letters, the first has them. */
  rules: z
    .array(ReplacementRule)
    .max(MOST_RULES)
    .refine(
      (rules) => rules.filter(({ pattern }) => pattern).length <= MOST_PATTERNS,
      `${MOST_PATTERNS} patterns are the most`,
    )
    .default([]),
  standing: z.array(StandingWords).max(20).default([]),
  /** What readers are asked to do at the end. */
  call: z
    .strictObject({
      before: z.string().trim().max(500),
      button: z.string().trim().min(1).max(80),
      address: z.string().trim().min(1).max(1_000),
      /** Of the button. */
      size: z.enum(['small', 'medium', 'full']).default('medium'),
      side: z.enum(['left', 'middle', 'right']).default('left'),
    })
    .nullable()
    .default(null),
  /** Where the last line of every article leads. */
  closingLink: z
    .strictObject({
      before: z.string().trim().max(300),
      words: z.string().trim().min(1).max(120),
      address: z.string().trim().min(1).max(1_000),
    })
    .nullable()
    .default(null),
  /** What it says in the place of what comes with Grivo: 'Read on' and the like. */
  wording: z.partialRecord(z.enum(SAYING_NAMES), z.string().trim().min(1).max(80)).default({}),
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
