import { z } from 'zod';
import type { Fields } from '../../engine/performer.ts';

/** What the steps hand on to each other, as it stands in outputs. */
export const OutlineField = z.array(z.object({ heading: z.string(), says: z.string(), passages: z.array(z.string()) }));
export type OutlineField = z.infer<typeof OutlineField>;

export const ArticleField = z.object({ id: z.string(), revision: z.string(), words: z.number() });
export type ArticleField = z.infer<typeof ArticleField>;

export const NotesField = z.array(
  z.object({ heading: z.string(), points: z.array(z.object({ point: z.string(), passages: z.array(z.string()) })) }),
);
export type NotesField = z.infer<typeof NotesField>;

export const PassagesField = z.array(z.string());

/** Items, parts or sources of a gathered brief, each with the passages that are of it once they are read. */
export const GatheredItems = z.array(
  z.looseObject({ subject: z.string().catch(''), passages: z.array(z.string()).optional() }),
);
export type GatheredItems = z.infer<typeof GatheredItems>;

/** A field by its schema, or null when no step before gave one. */
export function field<T>(fields: Fields, name: string, shape: z.ZodType<T>): T | null {
  const value = fields[name];
  return value === undefined ? null : shape.parse(value);
}

export function missing(name: string) {
  return { kind: 'failed' as const, failure: { code: 'field-missing' as const, field: name } };
}
