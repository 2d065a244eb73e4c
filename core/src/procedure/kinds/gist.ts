import { z } from 'zod';
import { instruction, stepBase } from '../fields.ts';
import type { StepKind } from '../kind.ts';
import { listWords } from '../sentence.ts';

export const PICKS = ['names', 'figures', 'claims'] as const;

const schema = z.strictObject({
  ...stepBase,
  kind: z.literal('gist'),
  words: z.int().min(20).max(2_000),
  picks: z.array(z.enum(PICKS)),
  instruction,
});
export type GistStep = z.infer<typeof schema>;

export const gist: StepKind<'gist', GistStep> = {
  kind: 'gist',
  does: 'sums up the sources and picks out facts',
  schema,
  needs: ['subject', 'passages'],
  gives: ['gist', 'facts'],
  uses: (step) => [{ field: 'instruction', as: 'template', text: step.instruction }],
  calls: 'writer',
  effect: false,
  writes: false,
  fresh: (id) => ({ id, kind: 'gist', off: false, words: 120, picks: ['names', 'figures', 'claims'], instruction: '' }),
  sentence: (step) => [
    { text: 'Sum up the sources in ' },
    {
      word: step.words.toLocaleString('en-GB'),
      field: 'words',
      editor: { type: 'number', least: 20, most: 2_000, unit: 'words' },
    },
    { text: ' words; pick out ' },
    { word: listWords(step.picks, 'nothing'), field: 'picks', editor: { type: 'list', of: 'pick' } },
  ],
  check: () => [],
};
