import { z } from 'zod';
import { Id, Micros } from '../id.ts';

/** Where a picture is from: drawn by a service, of a source, ours, set into a card, or come with a finished text. */
export const PictureKind = z.enum(['drawn', 'still', 'own', 'library', 'card', 'came']);
export type PictureKind = z.infer<typeof PictureKind>;

const digest = z.string().regex(/^[0-9a-f]{64}$/, 'the SHA-256 of a file');
const words = z.string().trim().max(500, 'at most 500 letters');
const credit = z.string().trim().max(300, 'at most 300 letters');

/** A picture of the library. */
export const Picture = z.object({
  /** SHA-256 of its file. */
  file: digest,
  kind: PictureKind,
  /** What is seen. */
  words: z.string(),
  credit: z.string(),
  /** Where it was found, or who drew it. */
  origin: z.string(),
  cost: Micros,
  width: z.int(),
  height: z.int(),
  bytes: z.int(),
  /** Articles that have it. */
  uses: z.int(),
  rev: z.int(),
});
export type Picture = z.infer<typeof Picture>;

export const PicturesQuery = z.object({
  find: z.string().max(200).default(''),
  kind: PictureKind.optional(),
  unused: z.stringbool().default(false),
  from: z.coerce.number().int().min(0).max(1_000_000).default(0),
});
export const Pictures = z.object({
  pictures: z.array(Picture),
  next: z.int().nullable(),
  /** Of the whole library. */
  sums: z.object({ pictures: z.int(), unused: z.int(), cost: Micros, bytes: z.int() }),
});
export type Pictures = z.infer<typeof Pictures>;

export const PictureWhole = z.object({
  picture: Picture,
  usedIn: z.array(z.object({ article: Id, title: z.string(), standing: z.string(), isLead: z.boolean() })),
  /** Others that look nearly the same, most alike first; 1 is the same. */
  alike: z.array(z.object({ file: digest, words: z.string(), share: z.number() })),
});
export type PictureWhole = z.infer<typeof PictureWhole>;

/** Keeps an uploaded picture in the library. */
export const BringPicture = z.strictObject({ file: digest, words: words.default(''), credit: credit.default('') });
export const BroughtPicture = z.object({ file: digest, isNew: z.boolean() });
export type BroughtPicture = z.infer<typeof BroughtPicture>;
export const PictureChange = z.strictObject({ words, credit });

/** Sides of a picture that is cut: how wide for how high. */
export const RATIOS = ['16:9', '3:2', '4:3', '1:1'] as const;
/** What of a picture stays when it is cut. */
export const KEEPS = ['the middle', 'the top', 'the bottom', 'the left', 'the right'] as const;
export const CutPicture = z.strictObject({ ratio: z.enum(RATIOS), keep: z.enum(KEEPS) });
export type CutPicture = z.infer<typeof CutPicture>;

/** Has a picture drawn anew; asked with the same words again, another drawing comes with a higher number. */
export const RedrawPicture = z.strictObject({
  /** What it shows as it is. */
  shows: z.string().trim().max(1_000).default(''),
  /** What is to be otherwise. */
  note: z.string().trim().min(1, 'what is to be otherwise').max(500),
  again: z.int().min(0).max(100).default(0),
});
export const Redrawn = z.object({ picture: Picture, micros: Micros });
export type Redrawn = z.infer<typeof Redrawn>;
export const RedrawPrice = z.object({ micros: Micros });
