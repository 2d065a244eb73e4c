import { ProcedureDocument } from '@grivo/core';
import { z } from 'zod';
import { Desk, Id, Micros, Name } from '../id.ts';

export const NewPipeline = z.strictObject({
  name: Name,
  document: ProcedureDocument,
  /** Most briefs in work at once. */
  openLimit: z.int().min(1).max(1_000).default(10),
});
export const PipelineChange = z
  .strictObject({ name: Name, document: ProcedureDocument, openLimit: z.int().min(1).max(1_000) })
  .partial();

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
  rev: z.int(),
  counts: PipelineCounts,
  nextLook: Desk.nullable(),
  lastOut: z.object({ title: z.string(), at: Desk }).nullable(),
  outThisMonth: z.int(),
  /** Mean cost of what went out this month. */
  microsEach: Micros.nullable(),
  sentences: z.array(z.string()),
  /** The kinds of its steps, in order. */
  kinds: z.array(z.string()),
});
export type Pipeline = z.infer<typeof Pipeline>;
export const Pipelines = z.object({ pipelines: z.array(Pipeline) });

export const PipelineWhole = Pipeline.extend({ document: ProcedureDocument, problems: z.array(PipelineProblem) });
export type PipelineWhole = z.infer<typeof PipelineWhole>;

export const MadePipeline = z.object({ id: Id, problems: z.array(PipelineProblem) });

export const Version = z.object({
  n: z.int(),
  by: z.string().nullable(),
  at: z.union([z.string(), z.date()]),
  sentences: z.array(z.string()),
});
export const Versions = z.object({ versions: z.array(Version) });

export const TakeItems = z.strictObject({
  items: z.array(Id).min(1).max(1_000).optional(),
  /** Given to the procedure's inputs, by name. */
  inputs: z.record(z.string(), z.string().max(5_000)).default({}),
  /** Hold after every step. */
  byHand: z.boolean().default(false),
});
export const Taken = z.object({ found: z.int(), briefs: z.array(Id) });

/** A trial: on an item or a subject typed in, by a document that need not be saved, up to a step. */
export const NewTrial = z
  .strictObject({
    document: ProcedureDocument,
    item: Id.optional(),
    subject: z.string().trim().min(1, 'a subject').max(500).optional(),
    until: z.string().max(16).optional(),
    inputs: z.record(z.string(), z.string().max(5_000)).default({}),
  })
  .refine((trial) => (trial.item === undefined) !== (trial.subject === undefined), 'either an item or a subject');

/** Goes on with a trial: by a changed document, up to a step, and again from one. */
export const MoreTrial = z.strictObject({
  document: ProcedureDocument,
  until: z.string().max(16).optional(),
  from: z.string().max(16).optional(),
});

export const MadeByPipeline = z.object({ briefs: z.int(), articles: z.int(), posts: z.int(), open: z.int() });
/** The number of articles as it was said, so that nothing more goes than was looked at. */
export const ClearPipeline = z.strictObject({ articles: z.int().min(0) });
export const ClearedPipeline = z.object({
  briefs: z.int(),
  posts: z.int(),
  kept: z.array(z.object({ address: z.string(), said: z.string() })),
});
