import { CELL_TYPES, RESERVED_FIELDS, SEPARATORS } from '@grivo/core';
import { z } from 'zod';
import { everyLook, FileDigest, WebAddress } from './look.ts';

export const SheetSettings = z.strictObject({
  kind: z.literal('sheet'),
  ...everyLook,
  /** Where it is looked at again; null when it was uploaded. */
  address: WebAddress.nullable().default(null),
  /** SHA-256 of the file uploaded. */
  file: FileDigest.nullable().default(null),
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
