import { z } from 'zod';
import { expressionProblem } from '../../expression/evaluate.ts';
import { fieldName, stepBase } from '../fields.ts';
import type { StepKind } from '../kind.ts';
import { beginning } from '../sentence.ts';

const schema = z.strictObject({
  ...stepBase,
  kind: z.literal('work out'),
  as: fieldName,
  expression: z.string().max(4_000),
});
export type WorkOutStep = z.infer<typeof schema>;

export const workOut: StepKind<'work out', WorkOutStep> = {
  kind: 'work out',
  does: 'computes a field from others',
  schema,
  needs: [],
  gives: [],
  keeps: (step) => step.as,
  uses: (step) => [{ field: 'expression', as: 'expression', text: step.expression }],
  calls: null,
  effect: false,
  writes: false,
  fresh: (id) => ({ id, kind: 'work out', off: false, as: 'value', expression: 'sentence(subject)' }),
  sentence: (step) => [
    { text: 'Work out ' },
    { word: step.as, field: 'as', editor: { type: 'text' } },
    { text: ' as ' },
    { word: beginning(step.expression, 80) || 'nothing yet', field: 'expression', editor: { type: 'expression' } },
  ],
  check: (step) => {
    const problem = expressionProblem(step.expression);
    return problem === null
      ? []
      : [
          {
            step: step.id,
            field: 'expression',
            grade: 'error',
            sentence: `This cannot be worked out: ${problem}.`,
            mend: 'Change the expression.',
          },
        ];
  },
};
