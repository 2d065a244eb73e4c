import { z } from 'zod';
import { Desk, Id, Micros } from '../id.ts';
import { Carried } from '../labels/label.ts';

export const PipelineProblem = z.object({
  step: z.string(),
  field: z.string().optional(),
  grade: z.enum(['error', 'warning']),
  sentence: z.string(),
  mend: z.string(),
});

export const PipelineCounts = z.object({
  waiting: z.int(),
  'in work': z.int(),
  held: z.int(),
  stopped: z.int(),
  ready: z.int(),
  out: z.int(),
  'set aside': z.int(),
});

export const Pipeline = z.object({
  id: Id,
  name: z.string(),
  isOn: z.boolean(),
  version: z.int(),
  openLimit: z.int(),
  note: z.string(),
  archived: z.boolean(),
  labels: Carried,
  rev: z.int(),
  counts: PipelineCounts,
  nextLook: Desk.nullable(),
  lastOut: z.object({ article: Id, title: z.string(), at: Desk }).nullable(),
  outThisMonth: z.int(),
  /** Mean cost of what went out this month. */
  microsEach: Micros.nullable(),
  sentences: z.array(z.string()),
  /** The kinds of its steps, in order. */
  kinds: z.array(z.string()),
  /** Sources it takes from. */
  sources: z.array(z.string()),
  /** Blogs it publishes to, each with the sentence of the step that does. */
  publishes: z.array(z.object({ blog: z.string(), says: z.string() })),
});
export type Pipeline = z.infer<typeof Pipeline>;
export const Pipelines = z.object({ pipelines: z.array(Pipeline) });

export const MadePipeline = z.object({ id: Id, problems: z.array(PipelineProblem) });

export const Version = z.object({
  n: z.int(),
  by: z.string().nullable(),
  at: z.union([z.string(), z.date()]),
  /** Everything it says, in lines, each with the number of its step; of a line about the whole, null. */
  lines: z.array(z.object({ step: z.int().nullable(), says: z.string() })),
});
export const Versions = z.object({ versions: z.array(Version) });
export type Versions = z.infer<typeof Versions>;

export const TakeItems = z.strictObject({
  items: z.array(Id).min(1).max(1_000).optional(),
  /** Items each brief is to be of, the one it is called by first; they count alone where there are any. */
  groups: z.array(z.array(Id).min(1).max(500)).min(1).max(1_000).optional(),
  /** Given to the procedure's inputs, by name. */
  inputs: z.record(z.string(), z.string().max(5_000)).default({}),
  /** Hold after every step. */
  byHand: z.boolean().default(false),
  /** The part of a recording that is to be used, in seconds. */
  range: z
    .strictObject({ from: z.number().min(0), to: z.number().min(0) })
    .nullable()
    .default(null),
});
export const Taken = z.object({ found: z.int(), briefs: z.array(Id) });

export const MadeByPipeline = z.object({ briefs: z.int(), articles: z.int(), posts: z.int(), open: z.int() });
/** The number of articles as it was said, so that nothing more goes than was looked at. */
export const ClearPipeline = z.strictObject({ articles: z.int().min(0) });
export const ClearedPipeline = z.object({
  briefs: z.int(),
  posts: z.int(),
  kept: z.array(z.object({ address: z.string(), said: z.string() })),
});
