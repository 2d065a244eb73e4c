import type { Price } from '@grivo/core';
import {
  mayDraw,
  type Part,
  type ProcedureDocument,
  picturesAtMost,
  type ServiceRole,
  type Step,
  serviceNamed,
  stepKinds,
} from '@grivo/core';
import type { Sql } from '../../ground/store/database.ts';
import type { ServiceDirectory } from '../services/directory.ts';
import { asUsed, ENOUGH, ofService, usedLately } from './used.ts';

/** How often a step that a check may send back is usually done, where nothing is known yet. */
const USUAL_ROUNDS = 1.4;
/** English words hold about so many tokens. */
const TOKENS_A_WORD = 1.35;
/** What is sent along with most questions: the fenced passages and the rules. */
const SENT = 2_500;

/** How long a recording is taken to be, until some were heard. */
const MINUTES = 10;

/** Parts the writer is asked for by themselves. */
const ASKED: ReadonlySet<string> = new Set<Part>([
  'key points',
  'table',
  'quotation',
  'questions and answers',
  'closing',
]);
const asked = (parts: readonly Part[]): number => parts.filter((part) => ASKED.has(part)).length;

/** Tokens in and out of a step that has not been run here yet, as its words ask for them. */
function tokensOf(step: Step): { in: number; out: number } {
  switch (step.kind) {
    case 'write':
      return {
        in: SENT * (3 + asked(step.parts)),
        out: step.words * TOKENS_A_WORD + 300 * asked(step.parts),
      };
    case 'put':
    case 'translate':
      return { in: 1_500, out: 1_500 };
    case 'notes':
      return { in: SENT, out: 800 };
    default:
      return { in: SENT, out: 300 };
  }
}

/** Steps with how often they are done: each turn of a 'for each' whose values are typed does those under it. */
function* counted(steps: readonly Step[], times = 1): Generator<{ step: Step; times: number }> {
  for (const step of steps) {
    if (step.off) continue;
    yield { step, times };
    const turns = step.kind === 'for each' ? Math.max(1, step.values.length) : 1;
    for (const { steps: under } of stepKinds[step.kind].inner?.(step as never) ?? [])
      yield* counted(under, times * turns);
  }
}

/** A cost with the share of nine in ten that are no less and no more, in micros. */
interface Spread {
  micros: number;
  fromMicros: number;
  toMicros: number;
}

/** Roles whose services are paid by what is used of them. */
const PAID: ReadonlySet<ServiceRole> = new Set<ServiceRole>(['writer', 'illustrator', 'transcriber']);

const NOTHING: Spread = { micros: 0, fromMicros: 0, toMicros: 0 };

/** What one service would take for a paid step, all its turns together. */
export interface CostBy extends Spread {
  service: string;
}

export interface StepCost {
  step: string;
  role: ServiceRole;
  /** The service the step is done by as its procedure stands; null where there is none. */
  service: string | null;
  /** Whether the step names it itself. */
  named: boolean;
  /** What each service of the role would take; the one it is done by among them. */
  by: CostBy[];
}

export interface Estimate extends Spread {
  /** Paid steps of kinds that were not run here often yet: reckoned by what their words ask for. */
  byPrice: number;
  steps: StepCost[];
}

/**
 * About what one brief of a procedure will cost: what such steps used in briefs lately (rewrites and turns counted), at the
 * price of the service each is done by; where too few were done, what its words ask for. Steps in branches count all.
 */
export async function estimateOf(sql: Sql, services: ServiceDirectory, document: ProcedureDocument): Promise<Estimate> {
  const steps = [...counted(document.steps)];
  const lately = await usedLately(sql, services);
  // What a check sends back is done again from the writing on, up to the check.
  const writing = steps.findIndex(({ step }) => stepKinds[step.kind].writes);
  const rounds = (at: number): number =>
    Math.max(
      1,
      ...steps
        .slice(at + 1)
        .map(({ step }) => (step.kind === 'check' && writing >= 0 && at >= writing ? 1 + step.again : 1)),
    );
  const all: StepCost[] = [];
  let byPrice = 0;
  for (const [at, { step, times }] of steps.entries()) {
    const role = stepKinds[step.kind].calls;
    if (role === null || !PAID.has(role)) continue;
    // One that never draws costs nothing, whatever others of its kind cost.
    if (step.kind === 'illustrate' && !mayDraw(step)) continue;
    const used = lately.get(step.kind) ?? [];
    if (used.length < ENOUGH) byPrice++;
    const named = serviceNamed(step, document);
    all.push({
      step: step.id,
      role,
      service: ((named && services.get(named)) || services.standard(role))?.id ?? null,
      named: step.service !== undefined,
      by: services.filling(role).map(({ id, price }) => {
        const once = used.length < ENOUGH ? asAsked(step, price, rounds(at)) : asUsed(ofService(used, id), price);
        return { service: id, ...timesOver(once, times) };
      }),
    });
  }
  const sum = all.reduce((sum, { service, by }) => {
    const own = by.find((one) => one.service === service) ?? NOTHING;
    return {
      micros: sum.micros + own.micros,
      fromMicros: sum.fromMicros + Math.min(own.fromMicros, own.micros),
      toMicros: sum.toMicros + Math.max(own.toMicros, own.micros),
    };
  }, NOTHING);
  return { ...sum, byPrice, steps: all };
}

const timesOver = ({ micros, fromMicros, toMicros }: Spread, times: number): Spread => ({
  micros: Math.round(times * micros),
  fromMicros: Math.round(times * fromMicros),
  toMicros: Math.round(times * toMicros),
});

/** A step that was not run here often yet, by what its words ask for, so often as a check may send it back. */
function asAsked(step: Step, price: Price, rounds: number): Spread {
  const once = priceOf(step, price);
  return { micros: once * (rounds > 1 ? USUAL_ROUNDS : 1), fromMicros: once, toMicros: once * rounds };
}

/** What a step costs once by the price of its service, in micros. */
function priceOf(step: Step, price: Price): number {
  if (step.kind === 'illustrate') return price.microsPerPicture * picturesAtMost(step);
  if (step.kind === 'hear') return (price.microsPerMinute ?? 0) * MINUTES;
  const tokens = tokensOf(step);
  return (tokens.in * price.microsPerThousandIn + tokens.out * price.microsPerThousandOut) / 1_000;
}
