import { z } from 'zod';
import { instruction, stepBase } from '../fields.ts';
import type { StepKind } from '../kind.ts';

const schema = z.strictObject({
  ...stepBase,
  kind: z.literal('translate'),
  /** The language to come, by its name: a Liquid text, so that a turn can name its own. */
  into: z.string().trim().min(1).max(120),
  instruction,
});
export type TranslateStep = z.infer<typeof schema>;

export const translate: StepKind<'translate', TranslateStep> = {
  kind: 'translate',
  does: 'puts the article into another language',
  schema,
  needs: ['article'],
  gives: [],
  also: ['title', 'language'],
  uses: (step) => [
    { field: 'into', as: 'template', text: step.into },
    { field: 'instruction', as: 'template', text: step.instruction },
  ],
  calls: 'writer',
  effect: false,
  writes: false,
  fresh: (id) => ({ id, kind: 'translate', off: false, into: 'German', instruction: '' }),
  sentence: (step) => [
    { text: 'Put it into ' },
    { word: step.into.replace(/^\{\{\s*(\w+)\s*\}\}$/, '$1'), field: 'into', editor: { type: 'text' } },
  ],
  check: () => [],
};
