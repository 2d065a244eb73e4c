import { ProcedureDocument } from '@grivo/core';
import { z } from 'zod';
import { Id, Micros, Name } from '../id.ts';
import { ServiceRole } from '../services/service.ts';
import { Pipeline, PipelineProblem } from './pipeline.ts';

// Whole procedures stand apart from the lists of pipelines: their schema brings every kind of step along.

export const NewPipeline = z.strictObject({
  name: Name,
  document: ProcedureDocument,
  /** Most briefs in work at once. */
  openLimit: z.int().min(1).max(1_000).default(10),
});
export const PipelineChange = z
  .strictObject({ name: Name, document: ProcedureDocument, openLimit: z.int().min(1).max(1_000) })
  .partial();

export const PipelineWhole = Pipeline.extend({
  document: ProcedureDocument,
  problems: z.array(PipelineProblem),
  /** Briefs that have begun and go by an older version. */
  older: z.int(),
});
export type PipelineWhole = z.infer<typeof PipelineWhole>;

/** Items that become one brief: those of a group together, several groups where 'take' gathers. */
const Units = z.array(z.array(Id).min(1).max(1_000)).min(1).max(100);

/** What a pipeline would make a brief of next; and what it took or left out, where nothing is new. */
export const OfferedRequest = z.strictObject({ document: ProcedureDocument });
export const OfferedUnit = z.object({
  source: Id,
  subject: z.string(),
  units: z.array(z.array(Id)),
  standing: z.enum(['new', 'taken', 'left out']),
});
export type OfferedUnit = z.infer<typeof OfferedUnit>;
/** With what the first of them brings along, each field as it begins. */
export const Offered = z.object({ offered: z.array(OfferedUnit), examples: z.record(z.string(), z.string()) });
export type Offered = z.infer<typeof Offered>;

/** A trial: on items or a subject typed in, by a document that need not be saved, up to a step. */
export const NewTrial = z
  .strictObject({
    document: ProcedureDocument,
    units: Units.optional(),
    subject: z.string().trim().min(1, 'a subject').max(500).optional(),
    until: z.string().max(16).optional(),
    inputs: z.record(z.string(), z.string().max(5_000)).default({}),
  })
  .refine((trial) => (trial.units === undefined) !== (trial.subject === undefined), 'either items or a subject');

/** Goes on with a trial: by a changed document, up to a step, and again from one. */
export const MoreTrial = z.strictObject({
  document: ProcedureDocument,
  until: z.string().max(16).optional(),
  from: z.string().max(16).optional(),
});

/** What one brief of a document would cost. */
export const EstimateRequest = z.strictObject({ document: ProcedureDocument });
const spread = { micros: Micros, fromMicros: Micros, toMicros: Micros };
/**
 * `fromMicros` to `toMicros`: what nine in ten cost at least and at most. `byPrice`: paid steps of kinds not run here often
 * yet, reckoned by what their words ask for and not by what such steps used lately.
 */
export const Estimate = z.object({
  ...spread,
  byPrice: z.int(),
  /** Each paid step: the service it is done by, and what each service of that role would take for it. */
  steps: z.array(
    z.object({
      step: z.string(),
      role: ServiceRole,
      service: Id.nullable(),
      /** Whether the step names its service itself. */
      named: z.boolean(),
      by: z.array(z.object({ service: Id, ...spread })),
    }),
  ),
});
export type Estimate = z.infer<typeof Estimate>;

export const VersionWhole = z.object({ n: z.int(), document: ProcedureDocument });

/** Figures that past runs of a step gave, newest first, by the word they tell something about. */
export const Past = z.object({
  past: z.record(z.string(), z.array(z.number())),
  /** What the step looked at, a record a brief, newest first. */
  seen: z.array(z.record(z.string(), z.unknown())),
});
export type Past = z.infer<typeof Past>;
