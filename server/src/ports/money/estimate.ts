import type { Price } from '@grivo/core';
import {
  mayDraw,
  type Part,
  type ProcedureDocument,
  picturesAtMost,
  type Step,
  serviceNamed,
  stepKinds,
} from '@grivo/core';
import type { Sql } from '../../ground/store/database.ts';
import type { ServiceDirectory } from '../services/directory.ts';

/** Entries of the ledger that say what steps cost lately. */
const RECENT = 4_000;
/** Steps of a kind from which on they say what such steps cost. */
const ENOUGH = 5;
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

/** The figure so many of all are below, of figures in order. */
const share = (sorted: readonly number[], at: number): number =>
  sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * at))] ?? 0;

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

/**
 * About what one brief of a procedure will cost, in micros, with the share of nine in ten that cost no less and no more:
 * each paid step as such steps cost in briefs lately, their rewrites and turns counted; else by the price of its service
 * and what its words ask for. Steps in branches count all.
 */
export async function estimateOf(
  sql: Sql,
  services: ServiceDirectory,
  document: ProcedureDocument,
): Promise<{ micros: number; fromMicros: number; toMicros: number; byPrice: number }> {
  const steps = [...counted(document.steps)];
  const lately = new Map<string, number[]>();
  for (const { kind, micros } of await sql.rows<{ kind: string; micros: number }>(
    `SELECT r.kind, SUM(l.micros) AS micros
     FROM (SELECT step_run, micros FROM ledger WHERE step_run IS NOT NULL ORDER BY id DESC LIMIT ${RECENT}) l JOIN step_run r ON r.id = l.step_run
     GROUP BY r.brief, r.path, r.kind`,
  ))
    lately.set(kind, [...(lately.get(kind) ?? []), Number(micros)]);
  // What a check sends back is done again from the writing on, up to the check.
  const writing = steps.findIndex(({ step }) => stepKinds[step.kind].writes);
  const rounds = (at: number): number =>
    Math.max(
      1,
      ...steps
        .slice(at + 1)
        .map(({ step }) => (step.kind === 'check' && writing >= 0 && at >= writing ? 1 + step.again : 1)),
    );
  const sum = { micros: 0, fromMicros: 0, toMicros: 0, byPrice: 0 };
  for (const [at, { step, times }] of steps.entries()) {
    if (stepKinds[step.kind].calls === null) continue;
    // One that never draws costs nothing, whatever others of its kind cost.
    if (step.kind === 'illustrate' && !mayDraw(step)) continue;
    const known = lately.get(step.kind)?.sort((a, b) => a - b) ?? [];
    if (known.length >= ENOUGH) {
      sum.micros += times * (known.reduce((a, b) => a + b, 0) / known.length);
      sum.fromMicros += times * share(known, 0.1);
      sum.toMicros += times * share(known, 0.9);
      continue;
    }
    sum.byPrice++;
    const named = serviceNamed(step, document);
    const price = ((named && services.get(named)) || services.standard(stepKinds[step.kind].calls!))?.price;
    if (!price) continue;
    const once = times * priceOf(step, price);
    sum.micros += once * (rounds(at) > 1 ? USUAL_ROUNDS : 1);
    sum.fromMicros += once;
    sum.toMicros += once * rounds(at);
  }
  return {
    micros: Math.round(sum.micros),
    fromMicros: Math.round(Math.min(sum.fromMicros, sum.micros)),
    toMicros: Math.round(Math.max(sum.toMicros, sum.micros)),
    byPrice: sum.byPrice,
  };
}

/** What a step costs once by the price of its service, in micros. */
function priceOf(step: Step, price: Price): number {
  if (step.kind === 'illustrate') return price.microsPerPicture * picturesAtMost(step);
  if (step.kind === 'hear') return (price.microsPerMinute ?? 0) * MINUTES;
  const tokens = tokensOf(step);
  return (tokens.in * price.microsPerThousandIn + tokens.out * price.microsPerThousandOut) / 1_000;
}
