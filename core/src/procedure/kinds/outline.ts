import { z } from 'zod';
import { examples, instruction, range, stepBase } from '../fields.ts';
import type { StepKind } from '../kind.ts';

const schema = z.strictObject({
  ...stepBase,
  kind: z.literal('outline'),
  sections: range(1, 20),
  /** Whether the parts of the source give the sections, as far as it has some. */
  follow: z.enum(['afresh', 'following its chapters']).default('afresh'),
  instruction,
  examples,
});
export type OutlineStep = z.infer<typeof schema>;

export const outline: StepKind<'outline', OutlineStep> = {
  kind: 'outline',
  does: 'plans the sections and what each must say',
  schema,
  needs: ['subject', 'passages'],
  gives: ['outline'],
  uses: (step) => [{ field: 'instruction', as: 'template', text: step.instruction }],
  calls: 'writer',
  effect: false,
  writes: false,
  fresh: (id) => ({
    id,
    kind: 'outline',
    off: false,
    sections: { from: 4, to: 6 },
    follow: 'afresh',
    instruction: '',
    examples: [],
  }),
  past: [
    {
      field: 'sections',
      of: 'outlines',
      figure: (gave) => (Array.isArray(gave['outline']) ? gave['outline'].length : null),
      passes: ({ sections }, count) => count >= sections.from && count <= sections.to,
    },
  ],
  sentence: (step) => [
    { text: 'Outline ' },
    {
      word:
        step.sections.from === step.sections.to
          ? String(step.sections.to)
          : `${step.sections.from} to ${step.sections.to}`,
      field: 'sections',
      editor: { type: 'range', least: 1, most: 20, unit: 'sections' },
    },
    { text: ' sections ' },
    {
      word: step.follow,
      field: 'follow',
      editor: {
        type: 'choice',
        options: [
          { value: 'afresh', says: 'afresh', does: 'in the order a reader needs them' },
          {
            value: 'following its chapters',
            says: 'following its chapters',
            does: 'the chapters of the video, in their order; afresh where it has none',
          },
        ],
      },
    },
  ],
  check: () => [],
};
