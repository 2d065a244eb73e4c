import { z } from 'zod';
import { Id } from '../id.ts';

/** A step that waits for a person, with what it proposes. */
export const Hold = z.object({
  run: Id,
  brief: Id,
  pipeline: Id,
  pipelineName: z.string(),
  subject: z.string(),
  kind: z.string(),
  path: z.string(),
  proposed: z.record(z.string(), z.unknown()).nullable(),
  heldAt: z.union([z.string(), z.date()]),
});
export type Hold = z.infer<typeof Hold>;
export const Holds = z.object({ holds: z.array(Hold) });

/** A person's word on it. */
export const Decision = z.discriminatedUnion('decide', [
  z.strictObject({
    decide: z.literal('pass'),
    /** What the person changed of what was proposed, by field; under `text` the article's body as Markdown, where there is one. */
    change: z.record(z.string(), z.unknown()).default({}),
  }),
  z.strictObject({ decide: z.literal('set aside') }),
  z.strictObject({
    decide: z.literal('send back'),
    note: z.string().trim().min(1, 'what is to be done differently').max(2_000),
    /** The path of the step that is to do it again; the one that made it when left out. */
    to: z.string().max(191).nullable().default(null),
  }),
]);
export type Decision = z.infer<typeof Decision>;

/** The body of an article as Markdown to be edited; null when there is no article yet. */
export const HeldText = z.object({ text: z.string().nullable(), language: z.string().nullable() });
