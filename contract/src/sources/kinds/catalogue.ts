import { z } from 'zod';
import { everyLook, FileDigest, WebAddress } from './look.ts';

const column = z.string().max(120).nullable().default(null);

/** Which column of a list says what; null where none does. */
export const CatalogueColumns = z.strictObject({
  id: column,
  name: column,
  link: column,
  category: column,
  language: column,
  price: column,
  popularity: column,
  description: column,
  picture: column,
});
export type CatalogueColumns = z.infer<typeof CatalogueColumns>;

const words = z.array(z.string().trim().min(1).max(120)).max(100).default([]);

export const CatalogueSettings = z.strictObject({
  kind: z.literal('catalogue'),
  ...everyLook,
  address: WebAddress.nullable().default(null),
  file: FileDigest.nullable().default(null),
  fileName: z.string().max(200).default(''),
  format: z.enum(['guess', 'CSV', 'XML', 'JSON']).default('guess'),
  /** Null guesses them by their names. */
  columns: CatalogueColumns.nullable().default(null),
  /** The partner's link: {link} and {id} stand for the product's, {partner} for the tracking id; empty leaves links as they are. */
  partnerLink: z
    .string()
    .trim()
    .max(1_000)
    .refine(
      (pattern) => pattern === '' || /\{link\}|\{id\}/.test(pattern),
      'a pattern that holds {link} or {id}, as {link}?partner={partner}',
    )
    .default(''),
  partner: z.string().trim().max(200).default(''),
  /** Only products of these categories; none takes all. */
  categories: words,
  languages: words,
  price: z.strictObject({ from: z.number().min(0).nullable(), to: z.number().min(0).nullable() }).default({
    from: null,
    to: null,
  }),
  order: z.enum(['as listed', 'most popular', 'cheapest', 'dearest']).default('as listed'),
  /** Whether categories take turns in that order. */
  spread: z.boolean().default(false),
  /** The first so many that pass; null takes all. */
  most: z.int().min(1).max(50_000).nullable().default(null),
});
export type CatalogueSettings = z.infer<typeof CatalogueSettings>;
