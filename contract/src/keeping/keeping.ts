import { z } from 'zod';
import { Name, Note } from '../id.ts';

/** Nouns that are renamed, put away and removed in one way. */
export const KeptNoun = z.enum([
  'pipelines',
  'sources',
  'blogs',
  'services',
  'routines',
  'labels',
  'destinations',
  'styles',
]);
export type KeptNoun = z.infer<typeof KeptNoun>;

/** What would go with a thing, and what keeps it from being removed. */
export const Hangs = z.object({
  name: z.string(),
  /** In words, as ‘3 articles’. */
  with: z.array(z.string()),
  /** Why it cannot be removed, with what would mend it; empty when it can. */
  unless: z.array(z.string()),
});
export type Hangs = z.infer<typeof Hangs>;

/** Words of a thing that is kept: what it is called, a line about it, whether it is put away. */
export const KeptWords = z
  .strictObject({ name: Name, note: Note, archived: z.boolean(), openLimit: z.int().min(1).max(1_000) })
  .partial();
export type KeptWords = z.infer<typeof KeptWords>;
