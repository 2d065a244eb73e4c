import { z } from 'zod';
import { instruction, stepBase } from '../fields.ts';
import type { StepKind } from '../kind.ts';

const schema = z.strictObject({
  ...stepBase,
  kind: z.literal('aim'),
  at: z.enum(['the subject', 'a phrase of your own', 'a phrase proposed']),
  /** The phrase of one's own: a Liquid text. */
  phrase: z.string().max(300),
  instruction,
});
export type AimStep = z.infer<typeof schema>;

const DOES: Record<AimStep['at'], string> = {
  'the subject': 'the phrase, title or name the item came with',
  'a phrase of your own':
    'typed here, with fields; of several, commas between, the first counts and the rest are related words',
  'a phrase proposed': 'the writer says what readers would search for, and related words',
};

export const aim: StepKind<'aim', AimStep> = {
  kind: 'aim',
  does: 'says what readers search for, for outline, text and title',
  schema,
  needs: ['subject'],
  gives: ['aim'],
  uses: (step) => [
    { field: 'instruction', as: 'template', text: step.instruction },
    ...(step.at === 'a phrase of your own' ? [{ field: 'phrase', as: 'template' as const, text: step.phrase }] : []),
  ],
  calls: 'writer',
  effect: false,
  writes: false,
  fresh: (id) => ({ id, kind: 'aim', off: false, at: 'a phrase proposed', phrase: '', instruction: '' }),
  sentence: (step) => [
    { text: 'Aim at ' },
    {
      word: step.at,
      field: 'at',
      editor: { type: 'choice', options: Object.entries(DOES).map(([value, does]) => ({ value, says: value, does })) },
    },
    ...(step.at === 'a phrase of your own'
      ? [{ text: ', ' }, { word: step.phrase || 'no phrase yet', field: 'phrase', editor: { type: 'text' as const } }]
      : []),
  ],
  check: (step) =>
    step.at === 'a phrase of your own' && step.phrase.trim() === ''
      ? [
          {
            step: step.id,
            field: 'phrase',
            grade: 'error',
            sentence: 'There is no phrase to aim at.',
            mend: 'Write the phrase.',
          },
        ]
      : [],
};
