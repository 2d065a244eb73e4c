import type { Estimate } from '@grivo/contract';
import type { ServiceRole } from '@grivo/core';
import { createContext } from 'react';

/** About what a brief of the procedure that is shown will cost, where that is known. */
export const Costs = createContext<Estimate | null>(null);

/** Micros: about so much, nine in ten from so much to so much. */
export interface Cost {
  micros: number;
  fromMicros: number;
  toMicros: number;
}

const NOTHING: Cost = { micros: 0, fromMicros: 0, toMicros: 0 };
const added = (a: Cost, b: Cost): Cost => ({
  micros: a.micros + b.micros,
  fromMicros: a.fromMicros + b.fromMicros,
  toMicros: a.toMicros + b.toMicros,
});
const takes = (one: Estimate['steps'][number], service: string | null): Cost =>
  one.by.find((by) => by.service === service) ?? NOTHING;

/** What a whole brief would cost if all steps of a role that name no service were done by one. */
export function wholeBy({ steps }: Estimate, role: ServiceRole, service: string): Cost {
  return steps.map((one) => takes(one, one.role === role && !one.named ? service : one.service)).reduce(added, NOTHING);
}

/** What a step would cost by a service; null where it is no paid step. */
export function stepBy({ steps }: Estimate, step: string, service: string): Cost | null {
  return steps.find((one) => one.step === step)?.by.find((by) => by.service === service) ?? null;
}

/** What each service takes of a brief, and for how many steps; the dearest first. Those that take nothing are left out. */
export function byService({ steps }: Estimate): { service: string; steps: number; cost: Cost }[] {
  const by = new Map<string, { service: string; steps: number; cost: Cost }>();
  for (const one of steps) {
    if (one.service === null) continue;
    const before = by.get(one.service) ?? { service: one.service, steps: 0, cost: NOTHING };
    by.set(one.service, { ...before, steps: before.steps + 1, cost: added(before.cost, takes(one, one.service)) });
  }
  return [...by.values()].filter(({ cost }) => cost.toMicros > 0).sort((a, b) => b.cost.micros - a.cost.micros);
}
