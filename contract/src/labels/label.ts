import { z } from 'zod';
import { Id, Name } from '../id.ts';

/** What can carry a label. */
export const LabelledNoun = z.enum(['blog', 'source', 'pipeline', 'style', 'article']);
export type LabelledNoun = z.infer<typeof LabelledNoun>;

/** A client or a theme: what carries it is read and summed up by itself. */
export const Label = z.object({
  id: Id,
  name: z.string(),
  /** How many blogs, sources, pipelines, house styles and articles carry it themselves. */
  on: z.record(LabelledNoun, z.int()),
});
export type Label = z.infer<typeof Label>;
export const Labels = z.object({ labels: z.array(Label) });
export const NewLabel = z.strictObject({ name: Name });

/** Puts a label on a thing, or takes it off; said again it changes nothing more. */
export const LabelOn = z.strictObject({ noun: LabelledNoun, id: Id, on: z.boolean() });

/** Only what carries a label. */
export const ByLabel = z.object({ label: Id.optional() });
export type ByLabel = z.infer<typeof ByLabel>;
/** The labels a thing carries. */
export const Carried = z.array(Id);
