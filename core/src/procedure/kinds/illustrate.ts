import { z } from 'zod';
import { instruction, stepBase } from '../fields.ts';
import type { StepKind } from '../kind.ts';

const schema = z.strictObject({
  ...stepBase,
  kind: z.literal('illustrate'),
  lead: z.enum(['drawn', 'still', 'own']),
  /** What is done where there is no such picture. */
  otherwise: z.enum(['drawn', 'none']).default('drawn'),
  /** How the picture should look, in words. */
  manner: z.string().max(500),
  instruction,
});
export type IllustrateStep = z.infer<typeof schema>;

/** Whether it may have a picture drawn, which is paid for. */
export const mayDraw = ({ lead, otherwise }: Pick<IllustrateStep, 'lead' | 'otherwise'>): boolean =>
  lead === 'drawn' || otherwise === 'drawn';

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
    otherwise: 'drawn',
    manner: 'flat shapes, calm colours',
    instruction: '',
  }),
  sentence: (step) => [
    { text: 'Illustrate with ' },
    {
      word: LEADS[step.lead].says,
      field: 'lead',
      editor: {
        type: 'choice',
        options: [
          { value: 'drawn', ...LEADS.drawn },
          { value: 'still', ...LEADS.still },
          { value: 'own', ...LEADS.own },
        ],
      },
    },
    { text: ' as lead picture' },
    ...(step.lead === 'drawn'
      ? []
      : [
          { text: ', else ' },
          {
            word: step.otherwise === 'drawn' ? 'a drawn one' : 'none',
            field: 'otherwise',
            editor: {
              type: 'choice' as const,
              options: [
                { value: 'drawn', says: 'a drawn one', does: 'the illustrator draws it, which is paid for' },
                { value: 'none', says: 'none', does: 'the article goes on without a picture' },
              ],
            },
          },
        ]),
    ...(mayDraw(step)
      ? [
          { text: step.lead === 'drawn' ? ', ' : ' ' },
          {
            word: step.manner || 'in the manner of the house style',
            field: 'manner',
            editor: { type: 'text' as const },
          },
        ]
      : []),
  ],
  check: () => [],
};

const LEADS = {
  drawn: { says: 'a drawn picture', does: 'the illustrator draws it' },
  still: {
    says: 'the source’s own picture',
    does: 'the still of its video, or the picture its product has, with its credit',
  },
  own: { says: 'a picture of ours', does: 'the one in the library whose words fit best' },
} as const;
