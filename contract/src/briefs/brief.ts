import { z } from 'zod';
import { Before, Desk, Id, Micros } from '../id.ts';

export const BriefStanding = z.enum(['waiting', 'in work', 'held', 'stopped', 'ready', 'out', 'set aside']);
export type BriefStanding = z.infer<typeof BriefStanding>;

export const FailureWords = z.object({ problem: z.string(), sentence: z.string(), mend: z.string() });

export const BriefsQuery = Before.extend({ pipeline: Id.optional(), standing: BriefStanding.optional() });
export const Brief = z.object({
  id: Id,
  pipeline: Id,
  standing: BriefStanding,
  subject: z.string(),
  madeDesk: Desk,
  endedDesk: Desk.nullable(),
  rev: z.int(),
});
export type Brief = z.infer<typeof Brief>;
export const Briefs = z.object({ briefs: z.array(Brief) });

export const StepState = z.enum(['ready', 'running', 'waiting', 'held', 'stopped', 'done', 'cancelled']);
const Time = z.union([z.string(), z.date()]).nullable();
export const StepRun = z.object({
  id: Id,
  path: z.string(),
  round: z.int(),
  kind: z.string(),
  state: StepState,
  attempts: z.int(),
  failure: FailureWords.nullable(),
  incident: Id.nullable(),
  dueDesk: Desk.nullable(),
  startedAt: Time,
  endedAt: Time,
  micros: Micros,
  gave: z.record(z.string(), z.unknown()).nullable(),
});
export type StepRun = z.infer<typeof StepRun>;

export const BriefWhole = Brief.extend({
  trial: z.boolean(),
  fields: z.record(z.string(), z.unknown()),
  version: z.int(),
  micros: Micros,
  runs: z.array(StepRun),
  articles: z.array(z.object({ id: Id, title: z.string(), standing: z.string() })),
});
export type BriefWhole = z.infer<typeof BriefWhole>;

export const Released = z.object({ released: z.int() });
export const Again = z.strictObject({ step: z.string().max(191) });

export const Incident = z.object({
  id: Id,
  service: z.string(),
  name: z.string(),
  cause: z.string(),
  openedAt: z.union([z.string(), z.date()]),
  briefs: z.int(),
  problem: z.string(),
  sentence: z.string(),
  mend: z.string(),
});
export type Incident = z.infer<typeof Incident>;
export const Incidents = z.object({ incidents: z.array(Incident) });
