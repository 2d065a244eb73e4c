import { z } from 'zod';
import { allSaid, countVariants, variantProblem } from '../../variant/variant.ts';
import { stepBase } from '../fields.ts';
import type { StepKind } from '../kind.ts';
import { beginning } from '../sentence.ts';

const schema = z.strictObject({
  ...stepBase,
  kind: z.literal('vary'),
  /** One variant a line; lists in braces inside, as {plain|fine} salt. Fields in double braces. */
  variants: z.array(z.string().min(1).max(2_000)).max(200),
  for: z.enum(['the title', 'the opening', 'a field']),
  /** The name a field is kept under. */
  as: z.string().max(40),
});
export type VaryStep = z.infer<typeof schema>;

export const vary: StepKind<'vary', VaryStep> = {
  kind: 'vary',
  does: 'uses one of several texts, another each time',
  schema,
  needs: [],
  gives: [],
  also: ['possibleTexts'],
  keeps: (step) => (step.for === 'a field' ? step.as : step.for === 'the title' ? 'title' : ''),
  uses: (step) => [
    ...step.variants.map((text) => ({ field: 'variants', as: 'template' as const, text: allSaid(text) })),
    ...(step.for === 'a field' ? [] : [{ field: 'for', as: 'name' as const, text: 'article' }]),
  ],
  calls: null,
  effect: false,
  writes: false,
  fresh: (id) => ({
    id,
    kind: 'vary',
    off: false,
    variants: ['{How|What} to know about {{ subject }}'],
    for: 'the title',
    as: 'variant',
  }),
  sentence: (step) => [
    { text: 'Use one of ' },
    {
      word: `${countVariants(step.variants).toLocaleString('en-GB')} possible ${step.variants.length === 1 ? `texts of “${beginning(step.variants[0]!, 40)}”` : 'texts'}`,
      field: 'variants',
      editor: { type: 'values', most: 200 },
    },
    { text: ' for ' },
    {
      word: step.for === 'a field' ? `the field ${step.as}` : step.for,
      field: 'for',
      editor: {
        type: 'choice',
        options: [
          { value: 'the title', says: 'the title', does: 'takes the place of the title' },
          { value: 'the opening', says: 'the opening', does: 'stands as the first paragraph' },
          { value: 'a field', says: 'a field', does: 'kept under a name for steps below' },
        ],
      },
    },
  ],
  check: (step) => {
    const problem = step.variants.map(variantProblem).find((found) => found !== null);
    if (step.variants.length === 0)
      return [
        {
          step: step.id,
          field: 'variants',
          grade: 'error',
          sentence: 'There is nothing to choose from.',
          mend: 'Give variants, one a line.',
        },
      ];
    return problem
      ? [
          {
            step: step.id,
            field: 'variants',
            grade: 'error',
            sentence: problem,
            mend: 'Close every list of alternatives.',
          },
        ]
      : [];
  },
};
