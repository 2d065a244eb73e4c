import { z } from 'zod';
import { FieldTest, testHolds } from '../../expression/test.ts';
import { anySteps } from '../anySteps.ts';
import { type StepBase, stepBase } from '../fields.ts';
import type { StepKind } from '../kind.ts';
import { recordAt } from '../past.ts';
import type { Step } from '../registry.ts';

export interface WhenStep extends StepBase {
  kind: 'when';
  join: 'all' | 'any';
  tests: FieldTest[];
  /** What is done when they hold, and what otherwise. */
  holds: Step[];
  otherwise: Step[];
}

const schema: z.ZodType<WhenStep> = z.strictObject({
  ...stepBase,
  kind: z.literal('when'),
  join: z.enum(['all', 'any']),
  tests: z.array(FieldTest).min(1).max(10),
  holds: anySteps,
  otherwise: anySteps,
});

/** A test as it is read: 'judgement.score is above 6'. */
export function testWords(test: FieldTest): string {
  const compared = test.is === 'filled' || test.is === 'empty' ? '' : ` ${test.value === '' ? '…' : test.value}`;
  return test.is === 'holding' || test.is === 'not holding'
    ? `${test.field} ${test.is === 'holding' ? 'holds' : 'does not hold'}${compared}`
    : `${test.field} is ${test.is}${compared}`;
}

export const when: StepKind<'when', WhenStep> = {
  kind: 'when',
  does: 'does one thing or the other by what fields say',
  schema,
  needs: [],
  gives: [],
  uses: (step) => step.tests.map((test) => ({ field: 'tests', as: 'name', text: test.field })),
  inner: (step) => [
    { under: 'holds', steps: step.holds },
    { under: 'otherwise', steps: step.otherwise },
  ],
  calls: null,
  effect: false,
  writes: false,
  fresh: (id) => ({
    id,
    kind: 'when',
    off: false,
    join: 'all',
    tests: [{ field: 'subject', is: 'filled', value: '' }],
    holds: [],
    otherwise: [],
  }),
  pastFilter: {
    field: 'tests',
    seen: (gave) => recordAt(gave, 'looked'),
    holds: (step, seen) => {
      const held = step.tests.map((test) =>
        Object.hasOwn(seen, test.field)
          ? testHolds({ ...test, field: 'value' }, { value: seen[test.field] ?? undefined })
          : null,
      );
      if (held.includes(null)) return null;
      return step.join === 'all' ? held.every(Boolean) : held.some(Boolean);
    },
  },
  sentence: (step) => [
    { text: 'When ' },
    {
      word: step.tests.map(testWords).join(step.join === 'all' ? ' and ' : ' or '),
      field: 'tests',
      editor: { type: 'tests' },
    },
  ],
  check: (step) => [
    ...(step.holds.length + step.otherwise.length === 0
      ? [
          {
            step: step.id,
            grade: 'warning' as const,
            sentence: 'Nothing is done either way.',
            mend: 'Put a step under it.',
          },
        ]
      : []),
    ...step.tests
      .filter((test) => (test.is === 'above' || test.is === 'below') && !isFigure(test.value.trim()))
      .map((test) => ({
        step: step.id,
        field: 'tests',
        grade: 'error' as const,
        sentence: `‘${test.value}’ is not a number, so nothing can be ${test.is} it.`,
        mend: 'Give a number.',
      })),
  ],
};

/** A figure as people write one: 12, -3.5, 1,200. */
function isFigure(text: string): boolean {
  return /^[-+]?[\d,]*(?:\.\d+)?$/.test(text) && /\d$/.test(text);
}
