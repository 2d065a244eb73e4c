import { z } from 'zod';
import { Before, Desk, Id, Name } from '../id.ts';
import { Carried } from '../labels/label.ts';
import { SOURCE_KINDS, SourceSettings } from './settings.ts';

export const NewSource = z.strictObject({
  name: Name,
  settings: SourceSettings.default({ kind: 'keywords' } as never),
});

export const SourceKindName = z.enum(SOURCE_KINDS as [(typeof SOURCE_KINDS)[number]]);

export const Source = z.object({
  id: Id,
  kind: SourceKindName,
  name: z.string(),
  items: z.int(),
  taken: z.int(),
  /** Items that are left out, for whatever reason. */
  leftOut: z.int(),
  lastLook: Desk.nullable(),
  note: z.string(),
  archived: z.boolean(),
  labels: Carried,
  /** What went wrong at the last look, null when it went well. */
  trouble: z.string().nullable(),
  /** Fields its items bring along, and whether every one does. */
  brings: z.array(z.object({ name: z.string(), always: z.boolean() })),
});
export type Source = z.infer<typeof Source>;
export const Sources = z.object({ sources: z.array(Source) });

export const SourceWhole = Source.extend({ rev: z.int(), settings: SourceSettings });
export type SourceWhole = z.infer<typeof SourceWhole>;
export const SourceChange = z.strictObject({ name: Name.optional(), settings: SourceSettings.optional() });

/** A phrase with what a keyword tool measured of it. */
export const MeasuredPhrase = z.strictObject({
  phrase: z.string().max(2_000),
  /** Searches a month. */
  volume: z.number().min(0).max(1e12).nullable(),
  difficulty: z.number().min(0).max(100).nullable(),
});
export type MeasuredPhrase = z.infer<typeof MeasuredPhrase>;

/**
 * A paste of keywords; a megabyte and a half is more than anybody types. Or phrases as a file parts them, which
 * count alone where there are any. */
export const KeywordPaste = z.strictObject({
  paste: z.string().max(1_500_000, 'at most 1.5 million characters').default(''),
  phrases: z.array(MeasuredPhrase).min(1).max(100_000, 'at most 100,000 phrases at once').optional(),
  /** Takes in what would be left out, as it is: a person has looked at it. */
  asIs: z.boolean().default(false),
});
export type KeywordPaste = z.infer<typeof KeywordPaste>;

export const CleanedPaste = z.object({
  added: z.int(),
  /** Phrases that stayed after spaces, marks and case were evened. */
  evened: z.int(),
  /** Phrases that were there, and whose measures were brought up to date. */
  measured: z.int(),
  /** How many were left out for each reason. */
  leftOut: z.record(z.string(), z.int()),
  /** The first of them. */
  dropped: z.array(z.object({ phrase: z.string(), reason: z.string(), of: z.string().nullable() })),
});

/** Why an item is not offered to pipelines. */
export const LeftOut = z.enum([
  'before the start',
  'filtered',
  'too short',
  'near repeat',
  'answered',
  'by hand',
  'unusable',
  'to confirm',
]);
export type LeftOut = z.infer<typeof LeftOut>;

export const Item = z.object({
  id: Id,
  subject: z.string(),
  leftOut: LeftOut.nullable(),
  /** What it is left out for: the word, the figure, the other item. */
  leftDetail: z.string(),
  /** Not there any more when the source was last looked at. */
  gone: z.boolean(),
  publishedDesk: Desk.nullable(),
  /** What it is from or of, in a few words: the feed, the category and price, the file. */
  about: z.string(),
  /** Of a phrase: the article we already have for it. */
  answeredBy: z.object({ id: Id, title: z.string() }).nullable(),
  /** Of a phrase, where a file told: searches a month, and difficulty from 0 to 100. */
  volume: z.number().nullable(),
  difficulty: z.number().nullable(),
  /** Of a phrase: what a search for it gives, as places in the list of addresses. */
  results: z.array(z.int()),
  taken: z.array(z.object({ pipeline: Id, brief: Id, standing: z.string() })),
});
export type Item = z.infer<typeof Item>;
export const Items = z.object({
  items: z.array(Item),
  /** Addresses that searches for phrases give. */
  addresses: z.array(z.string()),
  /** Items behind the last of these. */
  more: z.int().min(0),
});
/** The same before the items themselves are checked, which of a long list is done in slices. */
export const ItemsUnchecked = Items.extend({ items: z.array(z.unknown()) });

/** What became of looking figures of phrases up. */
export const FiguresLookedUp = z.object({
  known: z.int(),
  unknown: z.int(),
  left: z.int(),
  trouble: z.string().nullable(),
  mend: z.string().nullable(),
});
export type FiguresLookedUp = z.infer<typeof FiguresLookedUp>;

export const WidenSeed = z.strictObject({ phrase: z.string().trim().min(2, 'a phrase').max(200) });
export const WidenedPhrases = z.object({
  phrases: z.array(
    z.object({
      phrase: z.string(),
      volume: z.number().nullable(),
      difficulty: z.number().nullable(),
      question: z.boolean(),
    }),
  ),
  /** Where they come from: the keyword service, or patterns that know nothing of how often they are searched for. */
  from: z.enum(['the service', 'patterns']),
  trouble: z.string().nullable(),
});
export type WidenedPhrases = z.infer<typeof WidenedPhrases>;

export const ItemWhole = Item.extend({ source: Id, fields: z.record(z.string(), z.unknown()) });
export type ItemWhole = z.infer<typeof ItemWhole>;

/** What a person says of items: leave them out, or offer them in spite of what was found. */
export const OfferItems = z.strictObject({
  items: z.array(Id).min(1).max(5_000),
  offer: z.boolean(),
});

/** One visit to a source: what was new, what had changed, what was gone, or why nothing could be read. */
export const Look = z.object({
  id: Id,
  atDesk: Desk,
  found: z.int(),
  fresh: z.int(),
  changed: z.int(),
  leftOut: z.int(),
  taken: z.int(),
  pipeline: z.string().nullable(),
  trouble: z.string().nullable(),
});
export type Look = z.infer<typeof Look>;
export const Looks = z.object({ looks: z.array(Look) });
export const LooksQuery = Before;

/** What a look found. */
export const Looked = z.object({
  found: z.int(),
  fresh: z.int(),
  changed: z.int(),
  leftOut: z.int(),
  trouble: z.string().nullable(),
  mend: z.string().nullable(),
});
export type Looked = z.infer<typeof Looked>;

/** A row of a sheet with what is wrong in it. */
export const IntakeRow = z.object({
  /** Row of the sheet, from 1. */
  n: z.int(),
  cells: z.array(z.string()),
  faults: z.array(
    z.object({ header: z.string(), problem: z.string(), reads: z.string().nullable(), mend: z.string() }),
  ),
  /** How it stands as an item: new, taken, left out with its reason; null above the header and where it cannot be used. */
  item: z.object({ id: Id, leftOut: LeftOut.nullable(), leftDetail: z.string(), taken: z.boolean() }).nullable(),
});
export type IntakeRow = z.infer<typeof IntakeRow>;

export const SheetPreview = z.object({
  settings: SourceSettings,
  /** Tables of a workbook; empty for a file of one table. */
  tables: z.array(z.string()),
  encoding: z.string(),
  separator: z.string().nullable(),
  rows: z.int(),
  usable: z.int(),
  /** The first rows, all that have faults, and the last ones. */
  shown: z.array(IntakeRow),
  /** What was read past: quotes never closed, rows too long. */
  faults: z.array(z.object({ row: z.int(), problem: z.string() })),
});
export type SheetPreview = z.infer<typeof SheetPreview>;

/** A channel a person means by a handle, a name or an address. */
export const ChannelSought = z.strictObject({
  text: z.string().trim().min(1, 'a handle, a name or an address').max(500),
});
export const ChannelFound = z.object({ address: z.string(), name: z.string(), videos: z.int() });

export const VideoText = z.object({
  title: z.string(),
  address: z.string(),
  channel: z.string(),
  published: z.string().nullable(),
  seconds: z.number(),
  thumbnail: z.string().nullable(),
  language: z.string(),
  /** How the captions are said to be made: by hand, by machine. */
  captions: z.string(),
  chapters: z.array(z.object({ start: z.number(), title: z.string(), words: z.int() })),
  lines: z.array(z.object({ start: z.number(), end: z.number(), text: z.string() })),
  words: z.int(),
  carries: z.int(),
  left: z.object({ fillers: z.int(), repeats: z.int(), sounds: z.int() }),
});
export type VideoText = z.infer<typeof VideoText>;

/** Part of a recording that is to be used, in seconds. */
export const Range = z.strictObject({ from: z.number().min(0), to: z.number().min(0) });

export const UploadQuery = z.object({
  mime: z
    .string()
    .regex(/^[\w.+-]+\/[\w.+-]+$/)
    .max(64)
    .default('application/octet-stream'),
});
export const Uploaded = z.object({ file: z.string(), bytes: z.int() });

/** A feed a person means by an address or a subject. */
export const FeedSought = z.strictObject({ text: z.string().trim().min(1, 'an address or a subject').max(500) });
export const FeedsFound = z.object({
  feeds: z.array(
    z.object({
      address: z.string(),
      name: z.string(),
      form: z.string(),
      entries: z.int(),
      pushes: z.boolean(),
      newest: z.array(z.object({ title: z.string(), link: z.string().nullable(), published: z.string().nullable() })),
    }),
  ),
});
export type FeedsFound = z.infer<typeof FeedsFound>;

/** A list of feeds that was uploaded. */
export const OpmlFile = z.strictObject({ file: z.string().regex(/^[0-9a-f]{64}$/) });
export const ListedFeeds = z.object({ feeds: z.array(z.object({ address: z.string(), name: z.string() })) });

/** What would be read of an item now. */
export const ItemText = z.object({
  title: z.string(),
  address: z.string(),
  language: z.string(),
  paragraphs: z.array(z.object({ text: z.string(), place: z.string().nullable() })),
  words: z.int(),
  /** Words an article of it can be written in without padding. */
  carries: z.int(),
});
export type ItemText = z.infer<typeof ItemText>;

/** A partner's list as it would be read. */
export const CataloguePreview = z.object({
  settings: SourceSettings,
  format: z.string(),
  columns: z.array(z.object({ name: z.string(), sample: z.string() })),
  products: z.int(),
  passing: z.int(),
  /** What of the list would come in first, each with its link as readers would get it. */
  first: z.array(z.object({ name: z.string(), about: z.string(), link: z.string().nullable() })),
});
export type CataloguePreview = z.infer<typeof CataloguePreview>;

/** A recording that can be listened to. */
export const Recorded = z.object({
  seconds: z.number().nullable(),
  form: z.string(),
  /** What having it heard costs at most, in millionths; null without a transcriber. */
  micros: z.int().nullable(),
});
export type Recorded = z.infer<typeof Recorded>;
