import { type Step, stepKinds } from '@grivo/core';
import type { StepContext } from '../../src/engine/performer.ts';

/** What a step is done with, in a brief that has no other; `style` is what its procedure names. */
export function contextOf(
  step: Step,
  fields: Record<string, unknown>,
  style?: string,
  beside: readonly Step[] = [],
): StepContext {
  const brief = {
    id: 'b'.repeat(20),
    pipeline: 'p',
    trial: false,
    rev: 1,
    standing: 'in work',
    seed: 'seed',
    subject: 'salt for cabbage',
    fields: {},
    priority: 5,
    byHand: false,
    document: { grivo: 1, language: 'en', ...(style === undefined ? {} : { style }), steps: [step, ...beside] },
    nodes: [
      { type: 'step', id: 'w0', off: false, writes: true },
      { type: 'step', id: step.id, off: false, writes: false },
    ],
    steps: new Map([[step.id, step]]),
    routines: new Map([
      [
        'r1',
        {
          grivo: 1,
          language: 'en',
          inputs: [{ name: 'topic', asks: 'x', otherwise: 'salt' }],
          steps: [stepKinds.wait.fresh('w1')],
        },
      ],
    ]),
    runs: [],
    outputs: new Map(),
  };
  return {
    brief,
    run: {
      id: 'r'.repeat(20),
      path: step.id,
      round: 0,
      kind: step.kind,
      attempts: 1,
      tries: 0,
      state: 'running',
      opens: false,
      outcome: null,
      forSlot: false,
      startedAt: null,
    },
    fields,
    draw: 0,
    signal: new AbortController().signal,
    leaseOutlasts: async () => true,
    spent: () => undefined,
  } as unknown as StepContext;
}
