import { z } from 'zod';
import { stepBase } from '../fields.ts';
import type { StepKind } from '../kind.ts';
import { optional } from '../sentence.ts';

const schema = z.strictObject({
  ...stepBase,
  kind: z.literal('hold'),
  /** Who is to look. */
  for: z.string().trim().min(1).max(120),
  /** What the person is asked to look at, in words. */
  note: z.string().max(500),
});
export type HoldStep = z.infer<typeof schema>;

export const hold: StepKind<'hold', HoldStep> = {
  kind: 'hold',
  does: 'waits for a person to look',
  schema,
  needs: [],
  gives: [],
  uses: (step) => [{ field: 'note', as: 'template', text: step.note }],
  calls: null,
  effect: false,
  writes: false,
  fresh: (id) => ({ id, kind: 'hold', off: false, for: 'me', note: '' }),
  sentence: (step) => [
    { text: 'Hold for ' },
    { word: step.for, field: 'for', editor: { type: 'text' } },
    ...optional(
      step.note !== '',
      ': ',
      { word: step.note, field: 'note', editor: { type: 'text' } },
      'what to look at',
    ),
  ],
  check: () => [],
};
