import { z } from 'zod';
import { stepBase } from '../fields.ts';
import type { StepKind } from '../kind.ts';
import { optional } from '../sentence.ts';

const schema = z.strictObject({
  ...stepBase,
  kind: z.literal('use'),
  /** The routine's id. */
  routine: z.string().max(40),
  /** What its inputs are given, by name: Liquid texts. An input that is a single field takes that field as it is. */
  given: z.record(z.string().max(40), z.string().max(5_000)),
});
export type UseStep = z.infer<typeof schema>;

export const use: StepKind<'use', UseStep> = {
  kind: 'use',
  does: 'does the steps of a routine',
  schema,
  needs: [],
  gives: [],
  uses: (step) => Object.values(step.given).map((text) => ({ field: 'given', as: 'template', text })),
  calls: null,
  effect: false,
  writes: false,
  fresh: (id) => ({ id, kind: 'use', off: false, routine: '', given: {} }),
  sentence: (step, names) => [
    { text: 'Use the routine ' },
    {
      word: step.routine === '' ? 'not chosen yet' : (names.routine?.(step.routine) ?? step.routine),
      field: 'routine',
      editor: { type: 'reference', to: 'routine' },
    },
    ...optional(
      Object.keys(step.given).length > 0,
      ' with ',
      {
        word: Object.entries(step.given)
          .map(([name, text]) => `${name} ${text}`)
          .join(', '),
        field: 'given',
        editor: { type: 'record' },
      },
      'what it is given',
    ),
  ],
  check: (step, context) => {
    const problem = (sentence: string, mend: string, field = 'routine') => ({
      step: step.id,
      field,
      grade: 'error' as const,
      sentence,
      mend,
    });
    const routine = context.routine?.(step.routine);
    if (step.routine === '' || !routine) return [problem('It uses no routine.', 'Choose a routine.')];
    const missing = routine.inputs.filter((input) => input.otherwise === null && !(input.name in step.given));
    const strange = Object.keys(step.given).filter((name) => !routine.inputs.some((input) => input.name === name));
    return [
      ...missing.map(({ name }) => problem(`The routine wants ‘${name}’.`, `Give it ${name}.`, 'given')),
      ...strange.map((name) =>
        problem(
          `The routine takes no ‘${name}’.`,
          `It takes ${routine.inputs.map((input) => input.name).join(', ') || 'nothing'}.`,
          'given',
        ),
      ),
    ];
  },
};
