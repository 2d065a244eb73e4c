import { z } from 'zod';
import { range, stepBase } from '../fields.ts';
import type { StepKind } from '../kind.ts';
import { plural } from '../sentence.ts';

const schema = z.strictObject({
  ...stepBase,
  kind: z.literal('check'),
  words: range(0, 20_000),
  /** How often it is written again before it is set aside; 0 sets it aside at once. */
  again: z.int().min(0).max(5),
});
export type CheckStep = z.infer<typeof schema>;

export const check: StepKind<'check', CheckStep> = {
  kind: 'check',
  schema,
  needs: ['article'],
  gives: ['check'],
  calls: null,
  effect: false,
  writes: false,
  fresh: (id) => ({ id, kind: 'check', off: false, words: { from: 500, to: 2_000 }, again: 1 }),
  sentence: (step) => [
    { text: 'Check: ' },
    {
      word: `${step.words.from.toLocaleString('en-GB')} to ${step.words.to.toLocaleString('en-GB')}`,
      field: 'words',
      editor: { type: 'range', least: 0, most: 20_000, unit: 'words' },
    },
    { text: ' words; otherwise ' },
    {
      word:
        step.again === 0 ? 'set it aside' : `write it again, at most ${plural(step.again, 'time')}, then set it aside`,
      field: 'again',
      editor: { type: 'number', least: 0, most: 5 },
    },
  ],
  check: () => [],
};
