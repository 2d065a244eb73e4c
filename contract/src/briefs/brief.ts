import { z } from 'zod';
import { Before, Desk, Id, Micros } from '../id.ts';

export const BriefStanding = z.enum(['waiting', 'in work', 'held', 'stopped', 'ready', 'out', 'set aside']);
export type BriefStanding = z.infer<typeof BriefStanding>;

export const FailureWords = z.object({ problem: z.string(), sentence: z.string(), mend: z.string() });

export const BriefsQuery = Before.extend({
  label: Id.optional(),
  pipeline: Id.optional(),
  standing: BriefStanding.optional(),
});
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
  /** What it is made of. */
  items: z.array(Id),
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

/** How a step of a brief stands, a letter a column: done, in work, held, stopped, waiting, given up, not come to yet. */
export const SheetCell = z.enum(['d', 'b', 'h', 's', 'w', 'c', '.']);
export type SheetCell = z.infer<typeof SheetCell>;

export const SheetQuery = Before.extend({ standing: BriefStanding.optional(), find: z.string().max(200).optional() });
export const SheetColumn = z.object({ n: z.int(), step: z.string(), kind: z.string(), depth: z.int() });
const SheetLine = z.object({
  /** A letter for each column. */
  cells: z.string(),
  title: z.string(),
  words: z.int().nullable(),
  /** When it goes or went out, by the desk clock. */
  slot: Desk.nullable(),
});
export const SheetRow = SheetLine.extend({
  id: Id,
  subject: z.string(),
  standing: BriefStanding,
  madeDesk: Desk,
  micros: Micros,
  /** Why it stands as it does: what stopped it, what it is held at. */
  says: z.string(),
  /** The version of the procedure it goes by; one that waits takes the newest when it begins. */
  version: z.int(),
  /** Of one that waits: how many begin before it, when it begins where that is known, and what it waits for. */
  begins: z
    .object({
      after: z.int(),
      at: Desk.nullable(),
      for: z.enum(['its turn', 'the time between two', 'one in work to end']),
    })
    .nullable(),
  /** Articles of its branches and turns, each with the steps it went through. */
  siblings: z.array(SheetLine.extend({ line: z.string(), language: z.string() })),
});
export type SheetRow = z.infer<typeof SheetRow>;
export const Sheet = z.object({ columns: z.array(SheetColumn), rows: z.array(SheetRow), more: Id.nullable() });
export type Sheet = z.infer<typeof Sheet>;

export const BriefAct = z.enum([
  'set aside',
  'leave aside',
  'bring back',
  'put ahead',
  'begin now',
  'stop',
  'go on',
  'bring to the newest',
]);
export type BriefAct = z.infer<typeof BriefAct>;
/** One thing to do to briefs: those named, or all of a pipeline that match. */
export const ManyBriefs = z
  .strictObject({
    do: BriefAct,
    briefs: z.array(Id).min(1).max(1_000).optional(),
    matching: z
      .strictObject({
        pipeline: Id,
        standing: z.array(BriefStanding).max(7).default([]),
        find: z.string().max(200).default(''),
      })
      .optional(),
  })
  .refine((many) => (many.briefs === undefined) !== (many.matching === undefined), 'either briefs or what they match');
export type ManyBriefs = z.infer<typeof ManyBriefs>;
/** Briefs it was done to; to others it does not fit, as they stand; `more` match and were not come to yet. */
export const DoneToBriefs = z.object({ done: z.int(), left: z.int(), more: z.int() });

/** A text of a step, to be filled with what the step reads in one brief. */
export const FillRequest = z.strictObject({ step: z.string().max(16), text: z.string().max(20_000) });
export const Filled = z.object({ text: z.string(), problem: z.string().nullable() });

/** One step run with all that is known of it. */
export const RunWhole = z.object({
  run: StepRun,
  /** What the step read, as texts. */
  wentIn: z.array(z.object({ name: z.string(), text: z.string() })),
  /** The rounds of the step in its brief. */
  rounds: z.array(z.object({ id: Id, round: z.int(), state: StepState })),
  /** Attempts that did not end it, oldest first. */
  attempts: z.array(z.object({ n: z.int(), at: Time, says: z.string(), micros: Micros })),
});
export type RunWhole = z.infer<typeof RunWhole>;
