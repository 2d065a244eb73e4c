import { z } from 'zod';
import { examples, instruction, stepBase } from '../fields.ts';
import type { StepKind } from '../kind.ts';

const schema = z.strictObject({
  ...stepBase,
  kind: z.literal('title'),
  /** Most characters of a title. */
  most: z.int().min(20).max(200),
  choices: z.int().min(1).max(10),
  instruction,
  examples,
});
export type TitleStep = z.infer<typeof schema>;

export const title: StepKind<'title', TitleStep> = {
  kind: 'title',
  does: 'offers titles, and makes description and tags',
  schema,
  needs: ['subject', 'article'],
  gives: ['title'],
  also: ['titleChoices'],
  uses: (step) => [{ field: 'instruction', as: 'template', text: step.instruction }],
  calls: 'writer',
  effect: false,
  writes: false,
  fresh: (id) => ({ id, kind: 'title', off: false, most: 60, choices: 3, instruction: '', examples: [] }),
  past: [
    {
      field: 'most',
      of: 'titles',
      figure: (gave) => (typeof gave['title'] === 'string' ? gave['title'].length : null),
      passes: (step, length) => length <= step.most,
    },
  ],
  sentence: (step) => [
    { text: 'Title it in ' },
    {
      word: `at most ${step.most}`,
      field: 'most',
      editor: { type: 'number', least: 20, most: 200, unit: 'characters' },
    },
    { text: ' characters, ' },
    { word: String(step.choices), field: 'choices', editor: { type: 'number', least: 1, most: 10 } },
    { text: ' to choose from' },
  ],
  check: () => [],
};
