import { z } from 'zod';
import { instruction, stepBase } from '../fields.ts';
import type { StepKind } from '../kind.ts';

const schema = z.strictObject({
  ...stepBase,
  kind: z.literal('illustrate'),
  lead: z.literal('drawn'),
  /** How the picture should look, in words. */
  manner: z.string().max(500),
  instruction,
});
export type IllustrateStep = z.infer<typeof schema>;

export const illustrate: StepKind<'illustrate', IllustrateStep> = {
  kind: 'illustrate',
  does: 'draws or finds pictures for the article',
  schema,
  needs: ['article'],
  gives: ['picture'],
  uses: (step) => [{ field: 'instruction', as: 'template', text: step.instruction }],
  calls: 'illustrator',
  effect: false,
  writes: false,
  fresh: (id) => ({
    id,
    kind: 'illustrate',
    off: false,
    lead: 'drawn',
    manner: 'flat shapes, calm colours',
    instruction: '',
  }),
  sentence: (step) => [
    { text: 'Illustrate with ' },
    {
      word: 'a drawn picture',
      field: 'lead',
      editor: {
        type: 'choice',
        options: [{ value: 'drawn', says: 'a drawn picture', does: 'the illustrator draws it' }],
      },
    },
    { text: ' as lead picture, ' },
    { word: step.manner || 'in the manner of the house style', field: 'manner', editor: { type: 'text' } },
  ],
  check: () => [],
};
