import { z } from 'zod';
import { anySteps } from '../anySteps.ts';
import { fieldName, type StepBase, stepBase } from '../fields.ts';
import type { StepKind } from '../kind.ts';
import type { Step } from '../registry.ts';
import { listWords } from '../sentence.ts';

export interface ForEachStep extends StepBase {
  kind: 'for each';
  /** Values typed in; empty when they come from a field. */
  values: string[];
  /** The field that holds the values, when none are typed. */
  from: string;
  /** The name each turn knows its value by. */
  as: string;
  /** The name what the turns made comes back under. */
  name: string;
  steps: Step[];
}

const schema: z.ZodType<ForEachStep> = z.strictObject({
  ...stepBase,
  kind: z.literal('for each'),
  values: z.array(z.string().trim().min(1).max(300)).max(50),
  from: z.string().max(120),
  as: fieldName,
  name: fieldName,
  steps: anySteps,
});

/** Most turns of one 'for each', however many values there are. */
export const MOST_TURNS = 50;

export const forEach: StepKind<'for each', ForEachStep> = {
  kind: 'for each',
  does: 'does the steps under it once for each value',
  schema,
  needs: [],
  gives: [],
  keeps: (step) => step.name,
  uses: (step) =>
    step.values.length === 0 && step.from !== '' ? [{ field: 'from', as: 'name', text: step.from }] : [],
  inner: (step) => [{ under: 'steps', steps: step.steps }],
  calls: null,
  effect: false,
  writes: false,
  fresh: (id) => ({
    id,
    kind: 'for each',
    off: false,
    values: ['German', 'French'],
    from: '',
    as: 'each',
    name: 'turns',
    steps: [],
  }),
  sentence: (step) => [
    { text: 'For each of ' },
    step.values.length > 0 || step.from === ''
      ? { word: listWords(step.values, 'no values yet'), field: 'values', editor: { type: 'values', most: MOST_TURNS } }
      : { word: step.from, field: 'from', editor: { type: 'text' } },
    { text: ', each called ' },
    { word: step.as, field: 'as', editor: { type: 'text' } },
    { text: '; keep what comes of it as ' },
    { word: step.name, field: 'name', editor: { type: 'text' } },
  ],
  check: (step) =>
    step.values.length === 0 && step.from === ''
      ? [
          {
            step: step.id,
            field: 'values',
            grade: 'error',
            sentence: 'It has no values to go through.',
            mend: 'Give values, one a line, or name a field that holds a list.',
          },
        ]
      : [],
};
