import { CELL_TYPES, OPPORTUNITY, opportunityProblem, RESERVED_FIELDS, SEPARATORS } from '@grivo/core';
import { z } from 'zod';

/** Where a source begins when it is first looked at; what comes later is always new. */
export const StartFrom = z.discriminatedUnion('at', [
  z.strictObject({ at: z.literal('the beginning') }),
  z.strictObject({ at: z.literal('now') }),
  z.strictObject({ at: z.literal('a day'), day: z.iso.date() }),
  z.strictObject({ at: z.literal('the last'), n: z.int().min(1).max(10_000) }),
]);
export type StartFrom = z.infer<typeof StartFrom>;

const words = z.array(z.string().trim().min(1).max(120)).max(200);
const common = {
  startFrom: StartFrom.default({ at: 'the beginning' }),
  /** Items whose subject holds one of these are left out. */
  exclude: words.default([]),
};

export const KeywordSettings = z.strictObject({
  kind: z.literal('keywords'),
  ...common,
  /** What a line of a paste is: phrases parted by any sign, one title, or one short description. */
  lines: z.enum(['phrases', 'titles', 'descriptions']).default('phrases'),
  /** Whether each phrase is taken by itself, or those one article can serve together. */
  group: z.enum(['each', 'closely', 'loosely']).default('each'),
  /** How words that are spelt in two ways are spelt. */
  spelling: z.enum(['as typed', 'British', 'American']).default('as typed'),
  /** What a phrase promises, as an expression of its volume and difficulty. */
  opportunity: z
    .string()
    .trim()
    .min(1)
    .max(300)
    .superRefine((formula, context) => {
      const problem = opportunityProblem(formula);
      if (problem !== null) context.addIssue({ code: 'custom', message: problem });
    })
    .default(OPPORTUNITY),
  /** A site whose phrases come in when it is looked at; null when none is watched. */
  site: z
    .url({ protocol: /^https?$/, error: 'an address as https://…' })
    .max(1_000)
    .nullable()
    .default(null),
  /** Phrases are taken to be searched for by readers there. */
  country: z
    .string()
    .regex(/^[A-Z]{2}$/)
    .nullable()
    .default(null),
});
export type KeywordSettings = z.infer<typeof KeywordSettings>;

export const SheetSettings = z.strictObject({
  kind: z.literal('sheet'),
  ...common,
  /** Where it is looked at again; null when it was uploaded. */
  address: z
    .url({ protocol: /^https?$/, error: 'an address as https://…' })
    .max(1_000)
    .nullable()
    .default(null),
  /** SHA-256 of the file uploaded. */
  file: z
    .string()
    .regex(/^[0-9a-f]{64}$/)
    .nullable()
    .default(null),
  fileName: z.string().max(200).default(''),
  /** The table of a workbook, by name; null is the first. */
  table: z.string().max(120).nullable().default(null),
  encoding: z.enum(['guess', 'utf-8', 'utf-16le', 'utf-16be', 'windows-1252']).default('guess'),
  separator: z.enum(['guess', ...SEPARATORS]).default('guess'),
  /** Row that names the columns, from 1; null says that none does. */
  header: z.int().min(1).max(1_000).nullable().default(null),
  columns: z
    .array(
      z.strictObject({
        header: z.string().max(120),
        field: z
          .string()
          .regex(/^[a-z][A-Za-z0-9]{0,39}$/, 'a name of letters and figures that begins with a small letter')
          .refine((name) => !RESERVED_FIELDS.has(name), 'another name; this one means something else to a brief')
          .nullable(),
        type: z.enum(CELL_TYPES),
      }),
    )
    .max(200)
    .default([]),
  title: z.string().max(120).nullable().default(null),
  identity: z.array(z.string().max(120)).max(10).default([]),
  /** Whether rows that changed since they were taken come in again. */
  changed: z.boolean().default(false),
});
export type SheetSettings = z.infer<typeof SheetSettings>;

export const VideoSettings = z.strictObject({
  kind: z.literal('videos'),
  ...common,
  /** Addresses of single videos. */
  addresses: z
    .array(z.url({ protocol: /^https?$/ }).max(1_000))
    .max(500)
    .default([]),
  /** Captions that were uploaded, each as what is said in one recording. */
  captions: z
    .array(z.strictObject({ file: z.string().regex(/^[0-9a-f]{64}$/), fileName: z.string().max(200) }))
    .max(200)
    .default([]),
  /** Address of a channel or a playlist whose videos are watched. */
  channel: z
    .url({ protocol: /^https?$/ })
    .max(1_000)
    .nullable()
    .default(null),
  channelName: z.string().max(200).default(''),
  /** Videos shorter than so many seconds are left out. */
  shortest: z.int().min(0).max(36_000).default(60),
});
export type VideoSettings = z.infer<typeof VideoSettings>;

/** How a source is looked at, by its kind. */
export const SourceSettings = z.discriminatedUnion('kind', [KeywordSettings, SheetSettings, VideoSettings]);
export type SourceSettings = z.infer<typeof SourceSettings>;
export type SourceKind = SourceSettings['kind'];
