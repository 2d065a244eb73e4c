import { z } from 'zod';
import { stepBase } from '../fields.ts';
import type { StepKind } from '../kind.ts';
import { minutesWords } from '../sentence.ts';

const schema = z.strictObject({
  ...stepBase,
  kind: z.literal('wait'),
  minutes: z.int().min(1).max(43_200),
});
export type WaitStep = z.infer<typeof schema>;

export const wait: StepKind<'wait', WaitStep> = {
  kind: 'wait',
  does: 'goes on after a while',
  schema,
  needs: [],
  gives: [],
  calls: null,
  effect: false,
  writes: false,
  fresh: (id) => ({ id, kind: 'wait', off: false, minutes: 5 }),
  sentence: (step) => [
    { text: 'Wait ' },
    {
      word: minutesWords(step.minutes),
      field: 'minutes',
      editor: { type: 'minutes', least: 1, most: 43_200, none: 'not at all' },
    },
  ],
  check: () => [],
};
