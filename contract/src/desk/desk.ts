import { z } from 'zod';
import { Incident } from '../briefs/brief.ts';
import { Desk, Id, Micros } from '../id.ts';
import { Price, ServiceRole } from '../services/service.ts';
import { Role } from '../session/session.ts';

/** Briefs of one pipeline that stand at one step for one cause. */
const Together = z.object({
  /** The first of them. */
  id: Id,
  subject: z.string(),
  pipeline: Id,
  pipelineName: z.string(),
  step: z.string(),
  briefs: z.array(Id),
});
const Time = z.union([z.string(), z.date()]);

/** What wants a person: one entry for each cause, however many briefs it concerns. */
export const Need = z.discriminatedUnion('kind', [
  Incident.extend({ kind: z.literal('incident') }),
  /** Stopped, each at its own. */
  Together.extend({ kind: z.literal('brief'), problem: z.string(), sentence: z.string(), mend: z.string() }),
  /** Tried again for a while, for a reason that may pass. */
  Together.extend({
    kind: z.literal('again'),
    problem: z.string(),
    sentence: z.string(),
    mend: z.string(),
    since: Time,
  }),
  Together.extend({ kind: z.literal('hold'), since: Time }),
  /** Set aside by a step, and not looked at since. */
  Together.extend({ kind: z.literal('aside'), why: z.string() }),
  /** What programs handed in at a hook and nobody has said yes to. */
  z.object({ kind: z.literal('confirm'), id: Id, name: z.string(), items: z.int(), subject: z.string() }),
  /** A source that could not be read when it was looked at last. */
  z.object({
    kind: z.literal('source'),
    id: Id,
    name: z.string(),
    sentence: z.string(),
    mend: z.string(),
    /** The last look that went well, by the desk clock. */
    lookedDesk: Desk.nullable(),
  }),
  /** A post somebody changed or removed on its blog. */
  z.object({
    kind: z.literal('outside'),
    id: Id,
    article: Id,
    title: z.string(),
    blogName: z.string(),
    what: z.enum(['changed', 'gone']),
    at: z.string(),
  }),
  z.object({ kind: z.literal('limit'), capMicros: Micros, spentMicros: Micros }),
]);
export type Need = z.infer<typeof Need>;

export const WentOut = z.object({
  article: Id,
  title: z.string(),
  blog: Id,
  blogName: z.string(),
  at: Desk,
  words: z.int(),
  micros: Micros,
  address: z.string(),
});
export const Today = z.object({
  now: Desk,
  since: Desk,
  needs: z.array(Need),
  wentOut: z.array(WentOut),
  /** Every article of the last four weeks with what it cost, for the ruler. */
  costs: z.array(z.object({ article: Id, title: z.string(), at: Desk, micros: Micros })),
  begun: z.object({
    blogs: z.int(),
    writers: z.int(),
    illustrators: z.int(),
    sources: z.int(),
    pipelines: z.int(),
    out: z.int(),
  }),
  role: Role,
});
export type Today = z.infer<typeof Today>;

export const SpendingLimit = z.strictObject({
  capMicros: Micros.nullable(),
  scope: z.enum(['month', 'day', 'article']).default('month'),
});
export const LimitStanding = z.object({
  capMicros: Micros.nullable(),
  spentMicros: Micros,
  trialsMicros: Micros,
  testsMicros: Micros,
  reservedMicros: Micros,
  month: z.string(),
  dayCapMicros: Micros.nullable(),
  articleCapMicros: Micros.nullable(),
});

/** The desk clock put to a moment (null: the real one) and let run at a speed; 0 stops it. */
export const DeskClockSetting = z.strictObject({
  at: z.iso.datetime('a moment as 2026-11-25T08:00:00Z').nullable(),
  speed: z.number().min(0).max(100_000),
});
export const DeskNow = z.object({ now: z.string(), speed: z.number() });

export const SystemState = z.object({
  version: z.string(),
  desk: z.object({ now: Desk, speed: z.number() }),
  workers: z.array(z.object({ id: Id, role: z.string(), startedAt: z.union([z.string(), z.date()]) })),
  work: z.object({
    ready: z.int(),
    running: z.int(),
    retrying: z.int(),
    stopped: z.int(),
    waitingBriefs: z.int(),
    nextDueDesk: Desk.nullable(),
  }),
});

export type SystemState = z.infer<typeof SystemState>;

/** A hint that something changed; `all` says that some may have been missed and everything is to be read again. */
export const ChangeEvent = z.object({ id: z.string(), noun: z.string(), nounId: z.string(), rev: z.int() });
export type ChangeEvent = z.infer<typeof ChangeEvent>;

/** The stand-ins of a demonstration, as a person would connect them; empty lists where there are none. */
export const StandIns = z.object({
  services: z.array(
    z.object({ role: ServiceRole, name: z.string(), address: z.string(), secret: z.string().nullable(), price: Price }),
  ),
  blogs: z.array(
    z.object({
      name: z.string(),
      address: z.string(),
      secret: z.string(),
      language: z.string(),
      user: z.string().optional(),
    }),
  ),
});
export type StandIns = z.infer<typeof StandIns>;
