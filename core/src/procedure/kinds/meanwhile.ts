import { z } from 'zod';
import { anySteps } from '../anySteps.ts';
import { fieldName, type StepBase, stepBase } from '../fields.ts';
import type { StepKind } from '../kind.ts';
import type { Step } from '../registry.ts';

export interface MeanwhileStep extends StepBase {
  kind: 'meanwhile';
  /** The name what the branch made comes back under. */
  name: string;
  /** What the end of the enclosing block does about a branch that has stopped. */
  ifStopped: 'wait for it' | 'go on without it';
  steps: Step[];
}

const schema: z.ZodType<MeanwhileStep> = z.strictObject({
  ...stepBase,
  kind: z.literal('meanwhile'),
  name: fieldName,
  ifStopped: z.enum(['wait for it', 'go on without it']),
  steps: anySteps,
});

export const meanwhile: StepKind<'meanwhile', MeanwhileStep> = {
  kind: 'meanwhile',
  does: 'does the steps under it beside the rest',
  schema,
  needs: [],
  gives: [],
  keeps: (step) => step.name,
  inner: (step) => [{ under: 'steps', steps: step.steps }],
  calls: null,
  effect: false,
  writes: false,
  fresh: (id) => ({ id, kind: 'meanwhile', off: false, name: 'branch', ifStopped: 'wait for it', steps: [] }),
  sentence: (step) => [
    { text: 'At the same time, kept as ' },
    { word: step.name, field: 'name', editor: { type: 'text' } },
    { text: '; if it stops, ' },
    {
      word: step.ifStopped,
      field: 'ifStopped',
      editor: {
        type: 'choice',
        options: [
          { value: 'wait for it', says: 'wait for it', does: 'the brief ends only when the branch has' },
          { value: 'go on without it', says: 'go on without it', does: 'the brief ends, the branch stays stopped' },
        ],
      },
    },
  ],
  check: (step) =>
    step.steps.length === 0
      ? [{ step: step.id, grade: 'warning', sentence: 'Nothing is done meanwhile.', mend: 'Put a step under it.' }]
      : [],
};
